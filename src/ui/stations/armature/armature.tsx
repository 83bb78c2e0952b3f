'use client';
import dynamic from 'next/dynamic';
import Link from 'next/link';
import { schools, schoolsThatSuit } from '../../../core/school';
import { useBench, useController } from '../../bench/context';
import { ChoiceInput } from '../../parts/fields';
import { StationPanel } from '../../parts/judgement';
import { useForm } from '../form/shaping';
import { takeSchool } from './take-school';
import { Joints } from './joints';
import { JoinsTable, MembersTable } from './members';
import { OnHand } from './on-hand';
import { SchoolFields } from './school-fields';

const CompareSchools = dynamic(() => import('./compare'), { ssr: false });

/** Another school for the same form; its own figures start afresh, changes by hand to the old one go. */
function SchoolChoice() {
  const controller = useController();
  const build = useBench((s) => s.build);
  const { kind } = build.armature.school;
  const form = useForm();
  const fitting = form ? schoolsThatSuit(form, kind) : [];
  return (
    <ChoiceInput
      label="School"
      value={kind}
      choices={fitting.map((s) => ({ id: s.kind, name: s.name }))}
      hint={schools.find((s) => s.kind === kind)?.when}
      onChoose={(id) => controller.edit(takeSchool(build, id))?.message ?? null}
    />
  );
}

const none: readonly string[] = [];

export default function ArmatureStation() {
  const controller = useController();
  const kind = useBench((s) => s.build.armature.school.kind);
  const school = schools.find((s) => s.kind === kind);
  const cautions = useBench((s) => s.report?.cautions) ?? none;
  return (
    <StationPanel
      station="armature"
      title="The armature"
      cautions={cautions}
      how={
        <>
          <p>{school?.how} What you change by hand stays when the form changes.</p>
          <p className="mb-0">Cut lengths follow the bend and add what the work takes: {school?.cuts}.</p>
        </>
      }
    >
      <SchoolChoice />
      <CompareSchools />
      {school && <SchoolFields school={school} />}
      <h3>Members</h3>
      <MembersTable />
      <JoinsTable />
      <OnHand />
      <Joints />
      <p className="mt-3 mb-0 d-flex flex-wrap gap-2">
        <Link href={`/build/${controller.id}/print`} target="_blank" className="btn btn-quiet btn-sm">
          Cut list and kit, to print
        </Link>
        <Link href={`/build/${controller.id}/print/templates`} target="_blank" className="btn btn-quiet btn-sm">
          Bending templates, full size
        </Link>
      </p>
    </StationPanel>
  );
}
