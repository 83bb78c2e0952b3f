import { failure, success, type Result } from '../../quantity';
import { readGlb } from './read-glb';
import { readObj } from './read-obj';
import { readPly } from './read-ply';
import { latin, readStl } from './read-stl';
import { largestMeshFile, type Progress, type TriangleMesh } from './triangle-mesh';
import type { MeshFormat } from './write-mesh';

/** What a file is by its beginning, and by its name where its beginning does not tell. */
export function meshFormatOf(bytes: Uint8Array, fileName: string): MeshFormat | null {
  const start = latin(bytes.subarray(0, 16));
  if (start.startsWith('glTF')) return 'glb';
  if (/^ply\r?\n/.test(start)) return 'ply';
  const ending = /\.([a-z]+)$/i.exec(fileName)?.[1]?.toLowerCase();
  return ending === 'stl' || ending === 'obj' || ending === 'ply' || ending === 'glb' ? ending : null;
}

/** Reads STL, OBJ, PLY or GLB; positions stay in the file's own unit, z up. */
export function readMesh(
  bytes: Uint8Array,
  fileName: string,
  progress?: Progress,
): Result<TriangleMesh & { readonly format: MeshFormat }> {
  if (bytes.length > largestMeshFile)
    return failure('too-large', 'the file', `a mesh file is at most ${largestMeshFile / 2 ** 20} MB`);
  const format = meshFormatOf(bytes, fileName);
  if (!format) return failure('not-a-mesh', 'the file', 'it is none of STL, OBJ, PLY and GLB');
  const read =
    format === 'stl'
      ? readStl(bytes, progress)
      : format === 'obj'
        ? readObj(bytes, progress)
        : format === 'ply'
          ? readPly(bytes, progress)
          : readGlb(bytes);
  return read.ok ? success({ ...read.value, format }) : read;
}
