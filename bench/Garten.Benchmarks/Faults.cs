using System.Globalization;
using Garten.Testing;

namespace Garten.Benchmarks;

/// <summary>
/// Two devices on a server of their own while browsers, tabs, the network, the server and its PostgreSQL fail at random: whether every fact
/// that a page had accepted is there afterwards, once and whole. See docs/reliability.md.
/// </summary>
internal sealed class Faults(TextWriter output) : IAsyncDisposable
{
    private const int Seed = 19;
    private const int Plants = 1000;

    // A list of some sixty lines takes a slow machine ten seconds from the page to the last line, and is begun behind what is sent first.
    private static readonly FaultyPace Pace = new(TimeSpan.FromSeconds(2), TimeSpan.FromSeconds(24), FormOneIn: 4);
    private readonly OwnServer _own = new("demo");

    public async Task RunAsync(int most, TimeSpan time)
    {
        using var client = new HttpClient
        {
            BaseAddress = new Uri(string.Create(CultureInfo.InvariantCulture, $"http://127.0.0.1:{_own.Port}")),
            Timeout = TimeSpan.FromSeconds(60),
        };
        await _own.StartAsync(client);
        // Between the devices and the server, to be cut.
        await using var relay = new TcpRelay(_own.Port);
        using var days = new FaultyDays(
            client,
            new Uri(string.Create(CultureInfo.InvariantCulture, $"http://127.0.0.1:{relay.Port}")),
            Seed,
            Plants
        );
        Task Killed(bool alsoDatabase) => Task.Run(() => _own.Kill(alsoDatabase));
        Fault[] faults =
        [
            .. days.OfDevices,
            new(
                "network cut",
                () =>
                {
                    relay.TakeAway();
                    return Task.CompletedTask;
                },
                () =>
                {
                    relay.BringBack();
                    return Task.CompletedTask;
                }
            ),
            new("server killed", () => Killed(alsoDatabase: false), () => _own.StartAsync(client)),
            new("server and database killed", () => Killed(alsoDatabase: true), () => _own.StartAsync(client)),
        ];
        var outcome = await days.RunAsync(faults, most, time, Pace, output.WriteLine);
        var kills = outcome.Faults.Values.Sum();
        await output.WriteLineAsync(
            string.Create(
                CultureInfo.InvariantCulture,
                $"{kills} faults ({string.Join(", ", outcome.Faults.OrderBy(f => f.Key, StringComparer.Ordinal).Select(f => $"{f.Key} {f.Value}"))}); {outcome.Accepted} facts accepted, {outcome.ByForm} of them typed into forms: {outcome.Lost.Count} lost, {outcome.Doubled.Count} doubled, {outcome.Half.Count} half, {outcome.Refused} refused; {outcome.Unsaid} there that weren't said to be; stores that the browser cleared {outcome.Cleared}"
            )
        );
        foreach (var (what, names) in new[] { ("lost", outcome.Lost), ("doubled", outcome.Doubled), ("half", outcome.Half) })
        {
            foreach (var kind in names.GroupBy(n => char.IsDigit(n[0]) ? "line" : n.Split(' ')[0], StringComparer.Ordinal))
                await output.WriteLineAsync($"  {what}: {kind.Count()} of {kind.Key}");
            foreach (var name in names.Take(20))
                await output.WriteLineAsync($"  {what}: {name}");
        }
        await output.WriteLineAsync($"facts on the devices: {string.Join(" | ", outcome.Hashes)}");
    }

    public ValueTask DisposeAsync() => _own.DisposeAsync();
}
