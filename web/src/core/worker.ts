import { expose } from "comlink";

// The core runs here, so that the page never waits on it.
interface CoreExports {
  Call(name: string, request: string): string;
  FillShelf(shelf: Uint8Array): void;
  LoadVocabulary(vocabulary: Uint8Array): void;
  LoadFlora(pack: Uint8Array): string;
  WarmUp(characters: number): boolean;
}

interface DotNet {
  dotnet: {
    create(): Promise<{
      getAssemblyExports(name: string): Promise<{ Garten: { Browser: { CoreExports: CoreExports } } }>;
    }>;
  };
}

// Characters that are made ready between two calls: a few milliseconds, so that no call waits. What the first couplet needs goes before.
const WARM_UP_STEP = 4;

async function start(): Promise<CoreExports> {
  const address = new URL("/_framework/dotnet.js", self.location.origin).href;
  const { dotnet } = (await import(/* @vite-ignore */ address)) as DotNet;
  const runtime = await dotnet.create();
  const exports = await runtime.getAssemblyExports("Garten.Browser.dll");
  return exports.Garten.Browser.CoreExports;
}

const core = start();

let isWarmingUp = false;

// Works ahead while nothing is asked: what comes meanwhile is answered between two steps.
function warmUp(exports: CoreExports): void {
  if (isWarmingUp) return;
  isWarmingUp = true;
  const step = () => {
    isWarmingUp = false;
    try {
      if (exports.WarmUp(WARM_UP_STEP)) warmUp(exports);
    } catch {
      // What can't be worked out ahead is said to whoever asks for it.
    }
  };
  setTimeout(step);
}

const inWorker = {
  async ready(): Promise<void> {
    await core;
  },
  async call(name: string, request: unknown): Promise<unknown> {
    return JSON.parse((await core).Call(name, JSON.stringify(request)));
  },
  async fillShelf(shelf: Uint8Array): Promise<void> {
    const exports = await core;
    exports.FillShelf(shelf);
    warmUp(exports);
  },
  async loadVocabulary(vocabulary: Uint8Array): Promise<void> {
    const exports = await core;
    exports.LoadVocabulary(vocabulary);
    warmUp(exports);
  },
  async loadFlora(pack: Uint8Array): Promise<string> {
    const exports = await core;
    const id = exports.LoadFlora(pack);
    warmUp(exports);
    return id;
  },
};

export type InWorker = typeof inWorker;

expose(inWorker);
