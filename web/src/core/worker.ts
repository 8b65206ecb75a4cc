// The core runs here, so that the page never waits on it.
type Method = (request: string | Uint8Array | number) => string;

interface CoreExports {
  Garten: { Browser: { CoreExports: Record<string, Method> } };
}

interface DotNet {
  dotnet: { create(): Promise<{ getAssemblyExports(name: string): Promise<CoreExports> }> };
}

interface Call {
  id: number;
  method: string;
  body: string | Uint8Array;
}

// Characters that are made ready between two calls: a few milliseconds, so that no call waits.
const WARM_UP_STEP = 4;

async function start(): Promise<Record<string, Method>> {
  const address = new URL("/_framework/dotnet.js", self.location.origin).href;
  const { dotnet } = (await import(/* @vite-ignore */ address)) as DotNet;
  const runtime = await dotnet.create();
  const exports = await runtime.getAssemblyExports("Garten.Browser.dll");
  return exports.Garten.Browser.CoreExports;
}

const core = start();

function warmUp(methods: Record<string, Method>): void {
  if (methods.WarmUp?.(WARM_UP_STEP) === "true") setTimeout(() => warmUp(methods));
}

// Not self.onmessage: the runtime would take this worker for one of its own.
self.addEventListener("message", (event: MessageEvent<Call>) => {
  const { id, method, body } = event.data;
  core
    .then((methods) => {
      const call = methods[method];
      if (!call) throw new Error(`The core has no ${method}.`);
      self.postMessage({ id, answer: call(body) });
      if (method === "LoadFlora") setTimeout(() => warmUp(methods));
    })
    .catch((error: unknown) => self.postMessage({ id, error: error instanceof Error ? error.message : String(error) }));
});
