import { copyBuild } from '../../../../../server';
import { answer, route } from '../../../guard';

export const POST = route<{ params: Promise<{ id: string }> }>(async (_, { params }) => {
  return answer(await copyBuild((await params).id));
});
