/**
 * Keeps flake layers with a demo job, none of which has them: sealer, black, flake, lock-down, the clear that buries it, and
 * the clear over the sanded film.
 * @throws when the server refuses
 */
export async function keepFlakeLayers(address: string, jobId: string): Promise<void> {
  const url = `${address}/api/jobs/${jobId}`;
  const { job } = (await (await fetch(url)).json()) as { job: { version: number } };
  const layer = (id: string, kind: string, materialId: string | null, coats: number, filmUm: number) => ({
    id,
    kind,
    materialId,
    coats,
    style: 'wet',
    strength: 1,
    filmUm,
  });
  const kept = await fetch(url, {
    method: 'PATCH',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({
      version: job.version,
      stacks: [
        {
          id: 'main',
          name: 'whole piece',
          layers: [
            layer('sealer', 'sealer', null, 1, 25),
            layer('ground', 'ground', 'black', 2, 12),
            layer('effect', 'effect', 'cinder-candy', 3, 10),
            layer('lock', 'lock', null, 1, 12),
            layer('bury', 'clear', null, 2, 28),
            layer('clear', 'clear', null, 2, 28),
          ],
        },
      ],
    }),
  });
  if (!kept.ok) throw new Error(await kept.text());
}
