using System.Net;
using System.Text.Json.Nodes;
using Xunit;

namespace Garten.Server.Tests;

/// <summary>What is printed: labels by plants, labels of specimens, forms.</summary>
public sealed class LabelApiTests(GartenServer server) : IClassFixture<GartenServer>, IAsyncLifetime
{
    private readonly Guid _place = Guid.CreateVersion7();
    private readonly Guid _plant = Guid.CreateVersion7();
    private const string Person = """{"id":"0197a1c0-5b00-7a11-9c3e-2f6f6b1d0c71","name":"Runa <Velt>"}""";

    public async ValueTask InitializeAsync()
    {
        await KeepAsync(
            $$"""{"kind":"savePlace","placeId":"{{_place}}","name":"Label & Dell","locality":"Torvane","latitude":57.1,"longitude":-11.2,"uncertaintyMetres":50,"caution":"Bulls."}"""
        );
        await KeepAsync(
            $$"""{"kind":"tagPlant","plantId":"{{_plant}}","placeId":"{{_place}}","label":"tag 7","taggedOn":"2026-05-02","recorder":{{Person}}}"""
        );
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private async Task KeepAsync(string fields)
    {
        var command = JsonNode.Parse(fields)!.AsObject();
        command["id"] = Guid.CreateVersion7();
        var (status, answer) = await server.SendAsync(command);
        Assert.True(status == 200, answer.ToJsonString());
    }

    private Task NameAsync(string name, string on) =>
        KeepAsync(
            $$"""{"kind":"recordDetermination","determinationId":"{{Guid.CreateVersion7()}}","occurrenceId":"{{Guid.CreateVersion7()}}","plantId":"{{_plant}}","plantLabel":"","placeId":"{{_place}}","eventDate":"{{on}}","recorder":{{Person}},"startKey":"","answers":[],"names":["{{name}}"],"note":"seen in fruit"}"""
        );

    private async Task<(HttpStatusCode Status, string Text)> GetAsync(string address)
    {
        using var answer = await server.Client.GetAsync(
            new Uri("/api/v1/" + address, UriKind.Relative),
            TestContext.Current.CancellationToken
        );
        return (answer.StatusCode, await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken));
    }

    [Fact]
    public async Task LabelsBearACodeThatOpensThePlant()
    {
        await NameAsync("Alvena alba", "2026-05-03");
        var (status, page) = await GetAsync($"plants/labels.html?place={_place}");
        Assert.Equal(HttpStatusCode.OK, status);
        Assert.Contains("tag 7", page, StringComparison.Ordinal);
        Assert.Contains("Label &amp; Dell", page, StringComparison.Ordinal);
        Assert.Contains("Alvena alba", page, StringComparison.Ordinal);
        Assert.Contains("<svg", page, StringComparison.Ordinal);
        Assert.DoesNotMatch("<script|src=|href=\"http|url\\(", page);
        Assert.Equal(
            page.Split("class=\"label\"").Length,
            (await GetAsync($"plants/labels.html?id={_plant}")).Text.Split("class=\"label\"").Length
        );
        Assert.Equal((HttpStatusCode)422, (await GetAsync("plants/labels.html")).Status);
    }

    [Fact]
    public async Task ASlipIsAddedAndNeverTakesTheEarlierNamesPlace()
    {
        Assert.Equal((HttpStatusCode)422, (await GetAsync($"plants/{_plant}/voucher.html?number=12")).Status);
        await NameAsync("Alvena alba", "2026-05-03");
        await NameAsync("Alvena nigra", "2026-06-03");
        var (_, page) = await GetAsync($"plants/{_plant}/voucher.html?number=RV%2012&part=a%20flowering%20shoot&licence=of%20the%20holder");
        Assert.True(page.IndexOf("Alvena alba", StringComparison.Ordinal) < page.IndexOf("Alvena nigra", StringComparison.Ordinal));
        Assert.Single(page.Split("class=\"slip\"").Skip(1));
        Assert.Contains("RV 12", page, StringComparison.Ordinal);
        Assert.Contains("Runa &lt;Velt&gt;", page, StringComparison.Ordinal);
        Assert.Contains("of the holder", page, StringComparison.Ordinal);
        Assert.Equal((HttpStatusCode)422, (await GetAsync($"plants/{_plant}/voucher.html")).Status);
        Assert.Equal(HttpStatusCode.NotFound, (await GetAsync($"plants/{Guid.CreateVersion7()}/voucher.html?number=1")).Status);
    }

    [Fact]
    public async Task AFormHasWhatWasFoundHereAndLinesToWriteOn()
    {
        await NameAsync("Alvena alba", "2026-05-03");
        var (status, page) = await GetAsync($"places/{_place}/form.html?month=6");
        Assert.Equal(HttpStatusCode.OK, status);
        foreach (var part in new[] { "Label &amp; Dell, June", "Bulls.", "Alvena alba", "Looked for in vain", "class=\"line\"" })
            Assert.Contains(part, page, StringComparison.Ordinal);
        Assert.Equal((HttpStatusCode)422, (await GetAsync($"places/{_place}/form.html?month=13")).Status);
        Assert.Equal(HttpStatusCode.NotFound, (await GetAsync($"places/{Guid.CreateVersion7()}/form.html")).Status);
    }
}
