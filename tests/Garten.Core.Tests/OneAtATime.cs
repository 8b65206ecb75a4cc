using System.Runtime.CompilerServices;
using CsCheck;

namespace Garten.Core.Tests;

/// <summary>Drawn cases are tried one after the other: what the core keeps while it works isn't made to be asked by several at once, and
/// classes of tests run side by side anyway.</summary>
internal static class OneAtATime
{
    [ModuleInitializer]
    internal static void Set() => Check.Threads = 1;
}
