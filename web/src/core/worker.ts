// The core runs here, so that the page never waits on it.
interface CoreExports {
  Garten: { Browser: { CoreExports: Record<string, (request: string) => string> } };
}

interface DotNet {
  dotnet: { create(): Promise<{ getAssemblyExports(name: string): Promise<CoreExports> }> };
}

interface Call {
  id: number;
  method: string;
  body: string;
}

async function start(): Promise<Record<string, (request: string) => string>> {
  const address = new URL("/_framework/dotnet.js", self.location.origin).href;
  const { dotnet } = (await import(/* @vite-ignore */ address)) as DotNet;
  const runtime = await dotnet.create();
  const exports = await runtime.getAssemblyExports("Garten.Browser.dll");
  return exports.Garten.Browser.CoreExports;
}

const core = start();

// Not self.onmessage: the runtime would take this worker for one of its own.
self.addEventListener("message", (event: MessageEvent<Call>) => {
  const { id, method, body } = event.data;
  core
    .then((methods) => {
      const call = methods[method];
      if (!call) throw new Error(`The core has no ${method}.`);
      self.postMessage({ id, answer: call(body) });
    })
    .catch((error: unknown) => self.postMessage({ id, error: error instanceof Error ? error.message : String(error) }));
});
