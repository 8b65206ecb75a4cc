using Garten.Benchmarks;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.Extensions.DependencyInjection;
using Xunit;

namespace Garten.Server.Tests;

/// <summary>Half a minute of what no sound client sends; the long run is ./garten bench fuzz.</summary>
public sealed class FuzzTests(GartenServer server) : IClassFixture<GartenServer>
{
    [Fact]
    public async Task NothingThatIsSentMakesItFail()
    {
        (string, byte[])[] files =
        [
            (
                "matrix.csv",
                "taxon,leaf length (mm),petals,margin\nAlvena rara,20–40,5,toothed\nAlvena vulgaris,(40-)50-90,4,entire / toothed\nBrontia alta,100–200,-,entire\n"u8.ToArray()
            ),
            (
                "taxa.csv",
                "name,rank,family,sensitive,synonyms\nAlvena rara,species,Alvenaceae,yes,Alvena occulta\nBrontia alta,species,Brontiaceae,,\n"u8.ToArray()
            ),
            (
                "key.txt",
                "Key to the hedge\n\n1. Leaves opposite, 3–5 cm long ... 2\n1. Leaves alternate ... Tharsina spinosa Hask.\n2. Twigs winged ... Vellorna alata Hask.\n2. Twigs round ... Vellorna sp.\n"u8.ToArray()
            ),
            (
                "matrix.xml",
                "<?xml version='1.0'?><Datasets xmlns='http://rs.tdwg.org/UBIF/2006/'><Dataset><TaxonNames><TaxonName id='t1'><Representation><Label>A b</Label></Representation></TaxonName></TaxonNames></Dataset></Datasets>"u8.ToArray()
            ),
        ];
        var seed = Random.Shared.Next();
        // Over a real connection: addresses are taken apart as in use.
        await using var factory = new WebApplicationFactory<Program>().WithWebHostBuilder(b =>
            b.UseSetting("urls", "http://127.0.0.1:0").UseSetting("GARTEN_DATABASE", server.ConnectionString).UseSetting("GARTEN_DEMO", "")
        );
        factory.UseKestrel();
        factory.StartServer();
        using var client = new HttpClient
        {
            BaseAddress = new Uri(
                factory.Services.GetRequiredService<IServer>().Features.GetRequiredFeature<IServerAddressesFeature>().Addresses.First()
            ),
        };
        var report = await new Fuzz(client, seed, files).RunAsync(
            100_000,
            10_000,
            TimeSpan.FromSeconds(30),
            TestContext.Current.CancellationToken
        );
        TestContext.Current.TestOutputHelper?.WriteLine(
            $"seed {seed}: {report.Requests} requests, {report.Uploads} uploads; slowest {report.SlowestSeconds:0.0} s: {report.Slowest}"
        );
        Assert.True(report.Faults.Count == 0, $"seed {seed}:\n{string.Join('\n', report.Faults)}");
        Assert.True(report.Requests > 100);
    }
}
