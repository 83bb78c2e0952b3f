import { openBuild, saveBuild } from '../../src/server';

/** Saves without pause and says each save once it is done; made to be killed. */
async function main(id: string): Promise<void> {
  const opened = await openBuild(id);
  if (!opened.ok) throw new Error(opened.message);
  let { revision } = opened.value;
  for (let i = 0; ; i++) {
    const temperature = 10 + (i % 300) / 10;
    const saved = await saveBuild(id, {
      revision,
      document: { ...opened.value.build, room: { ...opened.value.build.room, temperature } },
      history: null,
      label: `save ${i}`,
    });
    if (!saved.ok || !saved.value.saved) throw new Error('a save was refused');
    revision = saved.value.revision;
    process.stdout.write(`${revision} ${temperature}\n`);
  }
}

void main(process.argv[2] ?? '');
