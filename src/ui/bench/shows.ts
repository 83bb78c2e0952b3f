/** What the piece shows while a station is looked at; nothing where the station wants the room. */
export type Shows =
  'plain' | 'form' | 'armature' | 'load' | 'clay' | 'drying' | 'mould' | 'move' | 'damage' | 'nothing';
