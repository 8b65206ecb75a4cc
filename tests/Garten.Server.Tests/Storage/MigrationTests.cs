using System.Security.Cryptography;
using Garten.Server.Database;
using Garten.Testing;
using Npgsql;
using Xunit;

namespace Garten.Server.Tests.Storage;

public sealed class MigrationTests : IAsyncLifetime
{
    private TestDatabase _database = null!;

    public async ValueTask InitializeAsync() => _database = await TestDatabase.CreateAsync();

    public async ValueTask DisposeAsync() => await _database.DisposeAsync();

    // A migration that has landed never changes: databases out there have run it as it was. Add a line for a new file.
    [Fact]
    public void AMigrationThatHasLandedNeverChanges()
    {
        var landed = new Dictionary<string, string>(StringComparer.Ordinal)
        {
            ["0001_start.sql"] = "4a1b81ae42ff950ed4e8149b8fd7ebdc9ea080aba2a9e6f81a963c3959ecbe35",
            ["0002_evidence.sql"] = "679957efd53a624be61f2fd79b836dbd5cdc0eb201373b128f1bd513e9927b62",
            ["0003_floras.sql"] = "7aa1ed0077cf74a6450ade85e6f457ad31bb49be42b78fb63331610fbb8f08d6",
            ["0004_places.sql"] = "1f10597de685fa28a599d5fcaa6a41f545f949c3da2f06329beeaa733c1ec567",
            ["0005_confirmation.sql"] = "1b5ab2935f4b77995a81cac3f29031ba4658b4d4757d62e1f80c6e018a99663d",
            ["0006_seasons.sql"] = "69a8335179b7dd8c4548c2791a3b4137f476eacd220e7efc623711dc5d76f2fb",
            ["0007_flora_counts.sql"] = "093e9122fa565bf5d725bf8870eb1f71ffa8df5facd2042e6f5a9263919ab838",
            ["0008_faults.sql"] = "0f63a58f4973e07e12cf0d2b5b6ce3b606b5e245581cd3a57e35957283b8c716",
            ["0009_changes.sql"] = "d5b5427e1b358ac5c7867a9730ae9fa7567600fd765ba518ae4545d41627dd9d",
            ["0010_lists.sql"] = "08aacbf08f637993273d412e53d18da04612f33d703f71af295407d060cef1cf",
            ["0011_flora_columns.sql"] = "2c4fa335624a8c58dfb45ffaf98f1e2f69cc69805c7e7bfdfa426393ed4e00b6",
            ["0012_place_name.sql"] = "bc8f4fedeca5b128d465f65f98760b69132bc75365ecf6a1b415b228beb9bcb7",
            ["0013_vocabulary.sql"] = "74a6acd16a0156e3637d2b770c4e60e05916f124ea6dacc84e9a3fb176404521",
            ["0014_text_source.sql"] = "6cbea8000b0b9209a5d11d52435bcc94a2873b8ca15701f06b7b4581bda92ca1",
            ["0015_key_reading.sql"] = "be0343b708e4db9d9b79c6ae85802892ba42934793756cd5aba9dca7e978ef07",
            ["0016_plant_search.sql"] = "2b5bc02ff45cc431598fe83d1bb34b2938dcc0640db9f853eebb4c812a5dde5c",
            ["0017_change_feed.sql"] = "012d98642b99db1873d900e0c8fc3d999633983e1f6edf218432229e23a9bb03",
            ["0018_questions.sql"] = "05d6733946cbf9d91504c4cef97b15b1ee762c4492dfc97351bb5f9e6de8c4b0",
            ["0019_erasure.sql"] = "44c5628a78025a1ecee73d8417cb9fdb7dfeb519d23ea28ee424bbf8db21189e",
            ["0020_devices.sql"] = "8d172803c34ee1fb46fd3f8bd8cef41c61ee0c82981d0904321cfd7821f8f2f1",
            ["0021_site_visits.sql"] = "26d89538aaa2c11b1f5dec87378b9fa1cdd27b7622f23ad368b2dcdfbc741670",
            ["0022_grounds.sql"] = "77720b6405dc781484b31d107649f91ae3cced4e2c2e76b771dcf049a9540ca4",
            ["0023_surveys.sql"] = "e4cec447816ab52d5d4b7f0ae0038e65f8619083aaaa46ed8abffc6a3e2fda5d",
            ["0024_counts.sql"] = "88481d436194ab1e2c9e6055b711f41d88abb9c03c275d050bde98fdb5b9d33f",
            ["0025_imports.sql"] = "3e333ddef5c45cf3d09927375fb38992148b3d924352a2b8718c4d84e9805e15",
            ["0026_places.sql"] = "9afb4722b0da3f25bb3aba93c8756e4474488b0e328ab8dfbc67b265cd324285",
            ["0027_survey_terms.sql"] = "5719c9548330660d13c8a5c5ab85d9677d621f07cedc4887f3f37c6c849c09da",
            ["0028_tracks.sql"] = "fe5ce13393391898e75492e030d77dbee91619dd0ad3631a97e6c1b45aa9992e",
            ["0029_deliveries.sql"] = "17547e6b03df72ee14ca5210058a92e0b6b70231aa1e7edce7399728e9fc07c3",
            ["0032_hands.sql"] = "dbffbe241944ff648d76acfdb51c3625ab00707623c2817df19d20bff1f1fec0",
            ["0033_turned_sheets.sql"] = "d9ce948d6d41e68f0d075cc9d62a033beaeff50dc6ea22c43641df9599d5e22b",
            ["0034_readings_cite.sql"] = "9ffb8d59feff666abc751295527a1d784ad947f4f9c8ca58662218414cf5a9e1",
            ["0031_merging.sql"] = "6fc166a1a98281c49a50295759b29c8157d7325172bb39b554e18e40a1375903",
            ["0030_map_sheets.sql"] = "9947ff982c0b0db74657f6b8274c96c0139d721d7b84ff64c39a204c86ca1e47",
        };
        var assembly = typeof(Migrator).Assembly;
        var found = assembly
            .GetManifestResourceNames()
            .Where(n => n.EndsWith(".sql", StringComparison.Ordinal))
            .ToDictionary(
                n => n,
                n =>
                {
                    using var stream = assembly.GetManifestResourceStream(n)!;
                    return Convert.ToHexStringLower(SHA256.HashData(stream));
                },
                StringComparer.Ordinal
            );
        Assert.Equal(landed, found);
    }

    [Fact]
    public async Task ServersThatStartTogetherMigrateOnce()
    {
        await Task.WhenAll(Enumerable.Range(0, 4).Select(_ => Task.Run(() => Migrator.Migrate(_database.ConnectionString))));
        await using var source = NpgsqlDataSource.Create(_database.ConnectionString);
        var files = typeof(Migrator).Assembly.GetManifestResourceNames().LongCount(n => n.EndsWith(".sql", StringComparison.Ordinal));
        Assert.Equal(
            files,
            await source.CreateCommand("select count(*) from schemaversions").ExecuteScalarAsync(TestContext.Current.CancellationToken)
        );
    }

    [Fact]
    public async Task FactsCantBeChangedOrRemoved()
    {
        Migrator.Migrate(_database.ConnectionString);
        await using var source = NpgsqlDataSource.Create(_database.ConnectionString);
        var stop = TestContext.Current.CancellationToken;
        await source
            .CreateCommand(
                "insert into command (id, kind, body_hash, result, received_at, change) values (gen_random_uuid(), 'k', 'h', '{}', now(), 1)"
            )
            .ExecuteNonQueryAsync(stop);
        foreach (var sql in new[] { "update command set kind = 'x'", "delete from command" })
        {
            var error = await Assert.ThrowsAsync<PostgresException>(() => source.CreateCommand(sql).ExecuteNonQueryAsync(stop));
            Assert.Equal(PostgresErrorCodes.RestrictViolation, error.SqlState);
        }
    }
}
