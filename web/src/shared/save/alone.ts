/** Does something that only one tab of this browser may do at a time; without locks (no HTTPS) each does it for itself. */
export async function alone(name: string, work: () => Promise<void>): Promise<void> {
  if (navigator.locks) await navigator.locks.request(`orthomer ${name}`, work);
  else await work();
}
