// What waits on this device: the browser's database, in the order in which it was done. Computes no mechanics.

const NAME = "wide-arc-floor";
const WAITING = "waiting";

function opened() {
  return new Promise((done, fail) => {
    const asked = window.indexedDB.open(NAME, 1);
    asked.onupgradeneeded = () => asked.result.createObjectStore(WAITING, { keyPath: "n", autoIncrement: true });
    asked.onsuccess = () => done(asked.result);
    asked.onerror = () => fail(asked.error);
  });
}

async function within(mode, work) {
  const base = await opened();
  try {
    return await new Promise((done, fail) => {
      const step = base.transaction(WAITING, mode);
      const asked = work(step.objectStore(WAITING));
      step.oncomplete = () => done(asked.result);
      step.onerror = step.onabort = () => fail(step.error);
    });
  } finally {
    base.close();
  }
}

export const all = () => within("readonly", (each) => each.getAll());
export const waiting = async () => (await all()).filter((one) => !one.sent);
export const add = (one) => within("readwrite", (each) => each.add(one));
export const change = (one) => within("readwrite", (each) => each.put(one));
export const drop = (one) => within("readwrite", (each) => each.delete(one.n));
