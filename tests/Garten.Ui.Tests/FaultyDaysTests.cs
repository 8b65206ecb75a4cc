using Garten.Testing;
using Xunit;

namespace Garten.Ui.Tests;

/// <summary>Forty seconds of <c>./garten bench faults</c>, each time with another seed.</summary>
public sealed class FaultyDaysTests(GartenSite site) : IClassFixture<GartenSite>
{
    private const int Plants = 60;
    private static readonly TimeSpan Time = TimeSpan.FromSeconds(40);
    private static readonly FaultyPace Pace = new(TimeSpan.FromSeconds(1.2), TimeSpan.FromSeconds(12), FormOneIn: 3);

    [Fact]
    public async Task WhatAPageHasAcceptedIsThereOnceWhateverFails()
    {
        var seed = Environment.TickCount;
        // Between the devices and the server, to be cut.
        await using var network = new TcpRelay(site.Address.Port);
        using var days = new FaultyDays(site.Client, new Uri($"http://127.0.0.1:{network.Port}"), seed, Plants);
        static Task Done(Action action)
        {
            action();
            return Task.CompletedTask;
        }
        Fault[] faults =
        [
            .. days.OfDevices,
            new("network cut", () => Done(network.TakeAway), () => Done(network.BringBack)),
            new("database away", () => Done(site.Relay.TakeAway), () => Done(site.Relay.BringBack)),
            new("server ended", () => site.EndServerAsync().AsTask(), () => Done(site.StartAgain)),
        ];
        var outcome = await days.RunAsync(faults, int.MaxValue, Time, Pace, _ => { });
        var said =
            $"seed {seed}: {string.Join(", ", outcome.Faults)}; {outcome.Accepted} accepted, {outcome.ByForm} by form, {outcome.Cleared} cleared";
        Assert.True(outcome.Accepted > 0, said);
        // A browser that begins its store anew by itself takes what waited there with it: the page says so, and can do no more.
        Assert.True(outcome.Lost.Count == 0 || outcome.Cleared > 0, $"{said}; lost: {string.Join(' ', outcome.Lost)}");
        Assert.True(outcome.Doubled.Count == 0, $"{said}; doubled: {string.Join(' ', outcome.Doubled)}");
        Assert.True(outcome.Half.Count == 0, $"{said}; half: {string.Join(' ', outcome.Half)}");
        Assert.True(outcome.Refused == 0, said);
        // Both devices show the same.
        Assert.Equal(outcome.Hashes[0], outcome.Hashes[1]);
    }
}
