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
import { Sizing } from './sizing';
import { useCannots } from './cannots';

const CompareSchools = dynamic(() => import('./compare'), { ssr: false });

/** Another school for the same form; its own figures start afresh, changes by hand to the old one go. */
function SchoolChoice() {
  const controller = useController();
  const build = useBench((s) => s.build);
  const { kind } = build.armature.school;
  const form = useForm();
  const fitting = form ? schoolsThatSuit(form, kind) : [];
  const cannots = useCannots(fitting.map((s) => s.kind).filter((k) => k !== kind));
  const told = [
    ...fitting.flatMap((s) => (cannots[s.kind] ? [{ name: s.name, why: cannots[s.kind]! }] : [])),
    ...schools.flatMap((s) => {
      const why = form && s.kind !== kind && s.fits(form) ? (s.unsuited?.(form) ?? null) : null;
      return why ? [{ name: s.name, why }] : [];
    }),
  ];
  return (
    <>
      <ChoiceInput
        label="School"
        value={kind}
        choices={fitting.map((s) => ({ id: s.kind, name: cannots[s.kind] ? `${s.name}: cannot do this` : s.name }))}
        hint={schools.find((s) => s.kind === kind)?.when}
        onChoose={(id) => controller.edit(takeSchool(build, id))?.message ?? null}
      />
      {told.length > 0 && (
        <details className="mb-2">
          <summary>
            {told.length === 1 ? 'One way of building' : `${told.length} ways of building`} cannot do this
          </summary>
          <ul className="mt-1 mb-0">
            {told.map((t) => (
              <li key={t.name}>
                <strong>{t.name}</strong>: {t.why}
              </li>
            ))}
          </ul>
        </details>
      )}
    </>
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
      <Sizing />
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
