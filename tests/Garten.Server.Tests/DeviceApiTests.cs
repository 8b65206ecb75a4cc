using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Net.Security;
using System.Security.Cryptography.X509Certificates;
using System.Text.Json.Nodes;
using Garten.Server.Features.Devices;
using Garten.Server.Hosting;
using Garten.Server.Hosting.Beyond;
using Garten.Testing;
using Microsoft.AspNetCore.Builder;
using Microsoft.Extensions.Configuration;
using Npgsql;
using Xunit;

namespace Garten.Server.Tests;

/// <summary>Beyond its own machine the server answers over TLS and to paired devices alone.</summary>
public sealed class DeviceApiTests : IAsyncLifetime
{
    private readonly DirectoryInfo _folder = Directory.CreateTempSubdirectory("garten-authority-");
    private TestDatabase _database = null!;
    private WebApplication _app = null!;
    private HttpClient _here = null!;
    private Uri _beyond = null!;

    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    public async ValueTask InitializeAsync()
    {
        _database = await Databases.EmptyAsync();
        var (here, beyond) = (FreePort.Find(), FreePort.Find());
        _app = GartenHost.Build(
            new WebApplicationOptions { ContentRootPath = AppContext.BaseDirectory },
            new Dictionary<string, string?>
            {
                ["GARTEN_DATABASE"] = _database.ConnectionString,
                ["GARTEN_DEMO"] = "",
                ["GARTEN_LISTEN"] = string.Create(CultureInfo.InvariantCulture, $"127.0.0.2:{beyond}"),
                ["GARTEN_AUTHORITY"] = _folder.FullName,
                ["urls"] = string.Create(CultureInfo.InvariantCulture, $"http://127.0.0.1:{here}"),
            }
        );
        await GartenHost.PrepareAsync(_app);
        await _app.StartAsync(Stop);
        _here = new HttpClient { BaseAddress = new Uri(string.Create(CultureInfo.InvariantCulture, $"http://127.0.0.1:{here}")) };
        _beyond = new Uri(string.Create(CultureInfo.InvariantCulture, $"https://127.0.0.2:{beyond}"));
    }

    public async ValueTask DisposeAsync()
    {
        _here.Dispose();
        await _app.StopAsync(CancellationToken.None);
        await _app.DisposeAsync();
        await _database.DisposeAsync();
        _folder.Delete(true);
    }

    // A device that trusts the server's own authority and nothing else.
    private HttpClient Device(Guid id)
    {
        var authority = X509Certificate2.CreateFromPem(File.ReadAllText(Path.Combine(_folder.FullName, "authority.crt")));
        var client = new HttpClient(
            new SocketsHttpHandler
            {
                UseCookies = true,
                CookieContainer = new CookieContainer(),
                SslOptions = new SslClientAuthenticationOptions { CertificateChainPolicy = Trusting(authority) },
            }
        )
        {
            BaseAddress = _beyond,
        };
        client.DefaultRequestHeaders.Add("Garten-Device", id.ToString());
        return client;
    }

    private static X509ChainPolicy Trusting(X509Certificate2 authority)
    {
        var policy = new X509ChainPolicy { TrustMode = X509ChainTrustMode.CustomRootTrust, RevocationMode = X509RevocationMode.NoCheck };
        policy.CustomTrustStore.Add(authority);
        return policy;
    }

    private static JsonObject Person(string name) => new() { ["id"] = Guid.CreateVersion7(), ["name"] = name };

    private async Task<JsonNode> OfferAsync(JsonObject person)
    {
        using var answer = await _here.PostAsJsonAsync("/api/v1/devices/codes", new JsonObject { ["person"] = person.DeepClone() }, Stop);
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        return (await answer.Content.ReadFromJsonAsync<JsonNode>(Stop))!;
    }

    private static async Task<(int Status, JsonNode Body)> PairAsync(HttpClient device, string code, string name = "Phone")
    {
        using var answer = await device.PostAsJsonAsync("/api/v1/devices/pair", new JsonObject { ["code"] = code, ["name"] = name }, Stop);
        return ((int)answer.StatusCode, (await answer.Content.ReadFromJsonAsync<JsonNode>(Stop))!);
    }

    private static async Task<string> CodeOf(HttpClient client, string path)
    {
        using var answer = await client.GetAsync(new Uri(path, UriKind.Relative), Stop);
        return answer.IsSuccessStatusCode ? "" : (string)(await answer.Content.ReadFromJsonAsync<JsonNode>(Stop))!["code"]!;
    }

    [Fact]
    public async Task NothingAnswersADeviceThatIsntPaired()
    {
        using var device = Device(Guid.CreateVersion7());
        foreach (
            var path in new[]
            {
                "/api/v1/health",
                "/api/v1/places",
                "/api/v1/records",
                "/api/v1/people",
                "/api/v1/devices",
                "/api/v1/devices/here",
                "/api/v1/openapi.json",
                "/API/V1/places",
                "/api/v1/nothing",
                "/%61pi/v1/places",
                "/x/../api/v1/places",
            }
        )
            Assert.Equal("device.unpaired", await CodeOf(device, path));
        using var sent = await device.PostAsJsonAsync("/api/v1/commands", new JsonObject { ["commands"] = new JsonArray() }, Stop);
        Assert.Equal(HttpStatusCode.Unauthorized, sent.StatusCode);
        // The server's own machine needs no pairing.
        Assert.Equal("", await CodeOf(_here, "/api/v1/places"));
        // What a device has to trust is open.
        var authority = await device.GetByteArrayAsync(new Uri("/authority.crt", UriKind.Relative), Stop);
        Assert.Equal("CN=Garten on this network", X509CertificateLoader.LoadCertificate(authority).Subject);
    }

    [Fact]
    public async Task ACodePairsOneDeviceOnceAndWhatItSendsCarriesBoth()
    {
        var person = Person("Runa Velt");
        var offer = await OfferAsync(person);
        Assert.Contains("<svg", (string)offer["qr"]!, StringComparison.Ordinal);
        Assert.StartsWith($"{_beyond}pair#", (string)offer["address"]!, StringComparison.Ordinal);
        var id = Guid.CreateVersion7();
        using var device = Device(id);
        var (status, paired) = await PairAsync(
            device,
            ((string)offer["code"]!).ToLowerInvariant().Replace("-", " ", StringComparison.Ordinal)
        );
        Assert.Equal(200, status);
        Assert.Equal("Runa Velt", (string)paired["person"]!["name"]!);
        Assert.Equal("", await CodeOf(device, "/api/v1/places"));
        // Used up.
        using var another = Device(Guid.CreateVersion7());
        var (again, refused) = await PairAsync(another, (string)offer["code"]!);
        Assert.Equal((422, "device.code"), (again, (string)refused["code"]!));

        var place = Guid.CreateVersion7();
        var command = Made.Command(
            "savePlace",
            ("placeId", place),
            ("name", "Paired Pool"),
            ("locality", ""),
            ("latitude", 57.4),
            ("longitude", -11.2),
            ("uncertaintyMetres", 150),
            ("caution", "")
        );
        // What it says of itself doesn't count.
        device.DefaultRequestHeaders.Remove("Garten-Device");
        device.DefaultRequestHeaders.Add("Garten-Device", Guid.CreateVersion7().ToString());
        using var sent = await device.PostAsJsonAsync("/api/v1/commands", new JsonObject { ["commands"] = new JsonArray(command) }, Stop);
        Assert.Equal(HttpStatusCode.OK, sent.StatusCode);
        await using var database = NpgsqlDataSource.Create(_database.ConnectionString);
        await using var select = database.CreateCommand("select device, person from command where kind = 'savePlace'");
        await using var row = await select.ExecuteReaderAsync(Stop);
        Assert.True(await row.ReadAsync(Stop));
        Assert.Equal((id, (Guid)person["id"]!), (row.GetGuid(0), row.GetGuid(1)));
    }

    [Fact]
    public async Task OneThatIsTakenOutComesHereNoMoreAndMayBePairedAgain()
    {
        var person = Person("Ilse Marrin");
        var id = Guid.CreateVersion7();
        using var device = Device(id);
        Assert.Equal(200, (await PairAsync(device, (string)(await OfferAsync(person))["code"]!)).Status);
        Assert.Equal("", await CodeOf(device, "/api/v1/places"));
        using (var revoked = await _here.PostAsync(new Uri($"/api/v1/devices/{id}/revoke", UriKind.Relative), null, Stop))
            Assert.Equal(HttpStatusCode.NoContent, revoked.StatusCode);
        Assert.Equal("device.unpaired", await CodeOf(device, "/api/v1/places"));
        var listed = (await _here.GetFromJsonAsync<JsonNode>("/api/v1/devices", Stop))!["devices"]![0]!;
        Assert.NotNull(listed["revokedAt"]);
        Assert.Equal(200, (await PairAsync(device, (string)(await OfferAsync(person))["code"]!)).Status);
        Assert.Equal("", await CodeOf(device, "/api/v1/places"));
    }

    [Fact]
    public async Task ADeviceOfOnePersonIsntTakenOverByAnother()
    {
        var id = Guid.CreateVersion7();
        using var device = Device(id);
        Assert.Equal(200, (await PairAsync(device, (string)(await OfferAsync(Person("Runa Velt")))["code"]!)).Status);
        using var thief = Device(id);
        var (status, body) = await PairAsync(thief, (string)(await OfferAsync(Person("Somebody Else")))["code"]!);
        Assert.Equal((409, "device.taken"), (status, (string)body["code"]!));
        Assert.Equal("device.unpaired", await CodeOf(thief, "/api/v1/places"));
        Assert.Equal("", await CodeOf(device, "/api/v1/places"));
    }

    [Fact]
    public async Task ErasingAPersonTakesTheirDevicesOut()
    {
        var person = Person("Runa Velt");
        using var device = Device(Guid.CreateVersion7());
        Assert.Equal(200, (await PairAsync(device, (string)(await OfferAsync(person))["code"]!, "Runa's phone")).Status);
        Assert.Equal("", await CodeOf(device, "/api/v1/places"));
        using var erased = await _here.PostAsJsonAsync(
            "/api/v1/commands",
            new JsonObject { ["commands"] = new JsonArray(Made.Command("erase", ("subjectId", person["id"]!.DeepClone()))) },
            Stop
        );
        Assert.Equal(HttpStatusCode.OK, erased.StatusCode);
        Assert.Equal("device.unpaired", await CodeOf(device, "/api/v1/places"));
        Assert.DoesNotContain(
            "Runa",
            await _here.GetStringAsync(new Uri("/api/v1/devices", UriKind.Relative), Stop),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task CodesAreMadeAndDevicesTakenOutOnTheServersOwnMachineAlone()
    {
        var id = Guid.CreateVersion7();
        using var device = Device(id);
        Assert.Equal(200, (await PairAsync(device, (string)(await OfferAsync(Person("Runa Velt")))["code"]!)).Status);
        Assert.Equal("device.elsewhere", await CodeOf(device, "/api/v1/devices"));
        using var code = await device.PostAsJsonAsync("/api/v1/devices/codes", new JsonObject { ["person"] = Person("A Friend") }, Stop);
        Assert.Equal(HttpStatusCode.Forbidden, code.StatusCode);
        using var revoked = await device.PostAsync(new Uri($"/api/v1/devices/{id}/revoke", UriKind.Relative), null, Stop);
        Assert.Equal(HttpStatusCode.Forbidden, revoked.StatusCode);
        // And none is paired by loopback, where no cookie of TLS is kept.
        var (status, body) = await PairAsync(_here, (string)(await OfferAsync(Person("Runa Velt")))["code"]!);
        Assert.Equal((403, "device.here"), (status, (string)body["code"]!));
    }

    [Theory]
    [InlineData("rebound.example", HttpStatusCode.BadRequest)]
    [InlineData("192.168.1.20", HttpStatusCode.BadRequest)]
    [InlineData("localhost", HttpStatusCode.OK)]
    [InlineData("127.0.0.1:5080", HttpStatusCode.OK)]
    [InlineData("[::1]", HttpStatusCode.OK)]
    public async Task ANameThatIsMadeToLeadHereOpensNothing(string host, HttpStatusCode status)
    {
        using var request = new HttpRequestMessage(HttpMethod.Get, "/api/v1/devices") { Headers = { Host = host } };
        using var answer = await _here.SendAsync(request, Stop);
        Assert.Equal(status, answer.StatusCode);
    }

    [Fact]
    public async Task WhoTriesManyCodesIsHeldUp()
    {
        using var device = Device(Guid.CreateVersion7());
        var statuses = new List<int>();
        for (var i = 0; i < 12; i++)
            statuses.Add((await PairAsync(device, "AAAA-AAAA")).Status);
        Assert.Equal(Enumerable.Repeat(422, 10).Concat([429, 429]), statuses);
    }

    [Fact]
    public void ACodeIsGoodForTenMinutesAndNoneIsAfterTenWrongOnes()
    {
        var clock = new SetClock();
        var codes = new PairingCodes(clock);
        var person = new Core.Contracts.PersonReference(Guid.CreateVersion7(), "Runa Velt");
        var (late, _) = codes.Make(person);
        clock.Now += PairingCodes.Life;
        Assert.Null(codes.Use(late));
        var (code, _) = codes.Make(person);
        for (var i = 0; i < 9; i++)
            Assert.Null(codes.Use("WRONG234"));
        Assert.Equal(person, codes.Use(code));
        var (guarded, _) = codes.Make(person);
        for (var i = 0; i < 10; i++)
            Assert.Null(codes.Use("WRONG234"));
        Assert.Null(codes.Use(guarded));
        Assert.Equal(person, codes.Use(codes.Make(person).Code));
    }

    [Fact]
    public void AnAuthorityStaysTheSameAndVouchesForPrivateAddressesAlone()
    {
        var folder = Path.Combine(_folder.FullName, "own");
        var now = DateTimeOffset.UtcNow;
        var authority = LocalAuthority.In(folder);
        Assert.Equal(authority.Fingerprint, LocalAuthority.In(folder).Fingerprint);
        var first = authority.CertificateFor(["192.168.1.20"], now);
        Assert.Equal(first.Thumbprint, authority.CertificateFor(["192.168.1.20"], now).Thumbprint);
        Assert.NotEqual(first.Thumbprint, authority.CertificateFor(["10.0.0.4"], now).Thumbprint);
        var again = authority.CertificateFor(["192.168.1.20"], now);
        Assert.NotEqual(again.Thumbprint, authority.CertificateFor(["192.168.1.20"], now.AddDays(380)).Thumbprint);
        bool Holds(X509Certificate2 certificate)
        {
            using var chain = new X509Chain { ChainPolicy = Trusting(X509CertificateLoader.LoadCertificate(authority.Certificate)) };
            return chain.Build(certificate);
        }
        Assert.True(Holds(first));
        Assert.False(Holds(authority.CertificateFor(["203.0.113.7"], now)));
        Assert.True(LocalAuthority.VouchesFor(IPAddress.Parse("172.31.0.9")));
        Assert.False(LocalAuthority.VouchesFor(IPAddress.Parse("172.32.0.9")));
        var wrong = Assert.Throws<UnusableSettingException>(() =>
            new BeyondLoopback(
                new ConfigurationBuilder()
                    .AddInMemoryCollection([new("GARTEN_LISTEN", "203.0.113.7:5443"), new("GARTEN_AUTHORITY", folder)])
                    .Build()
            )
        );
        Assert.Contains("bring a certificate", wrong.Message, StringComparison.Ordinal);
        if (!OperatingSystem.IsWindows())
        {
            foreach (var secret in new[] { "authority.key", "server.key" })
                Assert.Equal(UnixFileMode.UserRead | UnixFileMode.UserWrite, File.GetUnixFileMode(Path.Combine(folder, secret)));
        }
    }

    private sealed class SetClock : TimeProvider
    {
        public DateTimeOffset Now { get; set; } = DateTimeOffset.UnixEpoch;

        public override DateTimeOffset GetUtcNow() => Now;
    }
}
