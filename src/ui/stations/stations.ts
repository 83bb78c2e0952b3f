import dynamic from 'next/dynamic';
import { createElement, type ComponentType } from 'react';
import type { StationId } from '../../core/finding';
import type { Shows } from '../bench/shows';
import BriefStation from './brief/brief';

/** One station of the job: its name and key, its mark, its panel, and what the piece shows beside it. */
export interface Station {
  readonly id: StationId;
  readonly name: string;
  /** The key that goes to it. */
  readonly key: string;
  /** Whether its findings make a mark on the rail. */
  readonly marked: boolean;
  readonly shows: Shows;
  readonly panel: ComponentType;
}

// Stations that are not the first one looked at come when they are asked for.
const waiting = (words: string) => () => createElement('p', { className: 'muted' }, words);
const later = (load: () => Promise<{ default: ComponentType }>, words = 'Working it out …'): ComponentType =>
  dynamic(load, { ssr: false, loading: waiting(words) });

const Form = later(() => import('./form/form'));
const Armature = later(() => import('./armature/armature'));
const Load = later(() => import('./load/load'));
const Clay = later(() => import('./clay/clay'));
const Drying = later(() => import('./drying/drying'));
const Plan = later(() => import('./plan/plan'), 'Making the plan …');
// What was written down last is in the page as it comes.
const Log = dynamic(() => import('../log/log'), { loading: waiting('Opening the log …') });
const Mould = later(() => import('./mould/mould'));
const Move = later(() => import('./move/move'));

/** In the order of the work; a new station is its panel and a line here. */
export const stations: readonly Station[] = [
  { id: 'brief', name: 'Brief', key: '1', marked: true, shows: 'plain', panel: BriefStation },
  { id: 'form', name: 'Form', key: '2', marked: true, shows: 'form', panel: Form },
  { id: 'armature', name: 'Armature', key: '3', marked: true, shows: 'armature', panel: Armature },
  { id: 'load', name: 'Load', key: '4', marked: true, shows: 'load', panel: Load },
  { id: 'clay', name: 'Clay', key: '5', marked: true, shows: 'clay', panel: Clay },
  { id: 'drying', name: 'Drying', key: '6', marked: true, shows: 'drying', panel: Drying },
  { id: 'plan', name: 'Plan', key: '7', marked: true, shows: 'nothing', panel: Plan },
  { id: 'log', name: 'Bench log', key: '8', marked: false, shows: 'nothing', panel: Log },
  { id: 'mould', name: 'Mould', key: '9', marked: true, shows: 'mould', panel: Mould },
  { id: 'move', name: 'Move', key: '0', marked: true, shows: 'move', panel: Move },
];
