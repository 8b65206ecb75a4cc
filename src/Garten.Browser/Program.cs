using System.Runtime.Versioning;

[assembly: SupportedOSPlatform("browser")]

// The runtime wants an entry point; everything of use is exported by CoreExports.
return;
