using Garten.Testing;

namespace Garten.Benchmarks;

/// <summary>
/// Runs the benchmarks that are asked for, <c>./garten bench --filter '*'</c>; measures how well identification does, <c>./garten bench
/// accuracy</c>;
/// or measures in a browser against a running <c>./garten demo</c>, <c>./garten bench browser [address]</c>, of floras of
/// parts and qualities <c>./garten bench composed [address]</c>, of reading
/// keys <c>./garten bench reading [address]</c>, of what is waited for from a click or an address on <c>./garten bench first
/// [address]</c>; or sends such a one what no
/// sound
/// client sends, <c>./garten bench fuzz [address] [requests] [uploads] [seed]</c>; or kills
/// a server of its own while changes come in, <c>./garten bench durability [kills]</c>; or measures one over a million observations,
/// <c>./garten bench data</c>; or lets two devices work while everything fails, <c>./garten bench faults [faults] [minutes]</c>; or
/// measures a day without signal, <c>./garten bench away</c>, or a device with five years of looks, <c>./garten bench years</c>.
/// </summary>
public static class Program
{
    // On two shared cores the project of a benchmark takes more than the usual two minutes to build.
    private const string BuildSeconds = "600";

    private const int UsualKills = 24;
    private const int UsualFaults = 500;
    private const int UsualMinutes = 60;

    private static int Number(string[] args, int at, int otherwise) =>
        args.Length > at ? int.Parse(args[at], System.Globalization.CultureInfo.InvariantCulture) : otherwise;

    public static async Task Main(string[] args)
    {
        ArgumentNullException.ThrowIfNull(args);
        if (args is ["accuracy", ..])
            new Accuracy(Console.Out, args is [_, "short"]).Run(args is [_, "calibration"], args is [_, "turns"]);
        else if (args is ["browser", ..])
        {
            using var bench = new BrowserBench(Console.Out, new Uri(args.Length > 1 ? args[1] : "http://127.0.0.1:5080"));
            await bench.RunAsync();
        }
        else if (args is ["composed", ..])
        {
            using var bench = new BrowserBench(Console.Out, new Uri(args.Length > 1 ? args[1] : "http://127.0.0.1:5080"));
            bench.Composed();
        }
        else if (args is ["reading", ..])
        {
            using var bench = new BrowserBench(Console.Out, new Uri(args.Length > 1 ? args[1] : "http://127.0.0.1:5080"));
            await bench.ReadAsync();
        }
        else if (args is ["map", ..])
        {
            using var bench = new MapBench(Console.Out, new Uri(args.Length > 1 ? args[1] : "http://127.0.0.1:5080"));
            await bench.RunAsync();
        }
        else if (args is ["list", ..])
        {
            await using var list = new ListBench(Console.Out);
            await list.RunAsync();
        }
        else if (args is ["first", ..])
            new FirstSecond(Console.Out, new Uri(args.Length > 1 ? args[1] : "http://127.0.0.1:5080")).Run();
        else if (args is ["fuzz", ..])
            await FuzzRun.RunAsync(Console.Out, args[1..]);
        else if (args is ["data", ..])
            await new DataOfSize(Console.Out).RunAsync(Repository.Root);
        else if (args is ["away", ..])
        {
            await using var away = new AwayBench(Console.Out);
            await away.RunAsync();
        }
        else if (args is ["years", ..])
        {
            await using var years = new YearsBench(Console.Out);
            await years.RunAsync();
        }
        else if (args is ["faults", ..])
        {
            await using var faults = new Faults(Console.Out);
            await faults.RunAsync(Number(args, 1, UsualFaults), TimeSpan.FromMinutes(Number(args, 2, UsualMinutes)));
        }
        else if (args is ["durability", ..])
        {
            await using var durability = new Durability(Console.Out);
            await durability.RunAsync(Number(args, 1, UsualKills));
        }
        else
            BenchmarkDotNet.Running.BenchmarkSwitcher.FromAssembly(typeof(Program).Assembly).Run([.. args, "--buildTimeout", BuildSeconds]);
    }
}
