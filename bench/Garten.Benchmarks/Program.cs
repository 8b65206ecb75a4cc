namespace Garten.Benchmarks;

/// <summary>Runs the benchmarks that are asked for, <c>./garten bench --filter '*'</c>, or measures how well identification does, <c>./garten bench accuracy</c>.</summary>
public static class Program
{
    public static void Main(string[] args)
    {
        ArgumentNullException.ThrowIfNull(args);
        if (args is ["accuracy", ..]) Accuracy.Run(Console.Out);
        else BenchmarkDotNet.Running.BenchmarkSwitcher.FromAssembly(typeof(Program).Assembly).Run(args);
    }
}
