using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization.Metadata;
using Garten.Core.Contracts;
using Garten.Server.Commands;
using Xunit;

namespace Garten.Server.Tests.Wire;

/// <summary>
/// What devices have queued and databases have kept is read for ever: one of each kind of command and of each stored shape, as it was
/// written on the day on
/// which its file was added. A file is never changed; a new form gets another one.
/// </summary>
public sealed class WireTests
{
    private static readonly string Folder = Path.Combine(AppContext.BaseDirectory, "Wire");

    private static JsonArray Kept(string file) => (JsonArray)JsonNode.Parse(File.ReadAllText(Path.Combine(Folder, file)))!;

    [Fact]
    public void EveryCommandThereEverWasIsRead()
    {
        var kinds = new HashSet<string>(StringComparer.Ordinal);
        foreach (var kept in Kept("commands.json"))
        {
            kinds.Add((string)kept!["kind"]!);
            Holds(
                kept,
                JsonSerializer.SerializeToNode(
                    JsonSerializer.Deserialize(kept.ToJsonString(), CoreJson.Default.Command)!,
                    CoreJson.Default.Command
                )!,
                (string)kept["kind"]!
            );
        }
        var known = typeof(Command)
            .GetCustomAttributes(typeof(System.Text.Json.Serialization.JsonDerivedTypeAttribute), false)
            .Cast<System.Text.Json.Serialization.JsonDerivedTypeAttribute>()
            .Select(a => (string)a.TypeDiscriminator!);
        Assert.Equal(known.Order(StringComparer.Ordinal), kinds.Order(StringComparer.Ordinal));
    }

    [Fact]
    public void EveryStoredShapeThereEverWasIsRead()
    {
        Dictionary<string, JsonTypeInfo> shapes = new(StringComparer.Ordinal)
        {
            ["observation"] = CoreJson.Default.Observation,
            ["trail"] = CoreJson.Default.IReadOnlyListTrailStep,
            ["confirmation"] = CoreJson.Default.ConfirmResult,
            ["phases"] = CoreJson.Default.IReadOnlyListPhaseNote,
            ["sexes"] = CoreJson.Default.IReadOnlyListBranchSex,
            ["finding"] = CoreJson.Default.Finding,
            ["key"] = CoreJson.Default.Key,
            ["hand"] = CoreJson.Default.IReadOnlyListHandWeighing,
            ["claims"] = CoreJson.Default.IReadOnlyListStatementClaim,
            ["result"] = StoredResult.Default.CommandResult,
        };
        Assert.Equal(
            shapes.Keys.Order(StringComparer.Ordinal),
            Directory
                .GetFiles(Path.Combine(Folder, "stored"))
                .Select(f => Path.GetFileNameWithoutExtension(f))
                .Order(StringComparer.Ordinal)
        );
        foreach (var (name, shape) in shapes)
        {
            foreach (var kept in Kept(Path.Combine("stored", name + ".json")))
                Holds(kept!, JsonSerializer.SerializeToNode(JsonSerializer.Deserialize(kept!.ToJsonString(), shape)!, shape)!, name);
        }
    }

    // Everything that was kept is there again; more may have come to it.
    private static void Holds(JsonNode? kept, JsonNode? now, string at)
    {
        switch (kept)
        {
            case JsonObject old:
                foreach (var (name, value) in old)
                    Holds(value, (now as JsonObject)?[name], $"{at}.{name}");
                break;
            case JsonArray old:
                Assert.True(now is JsonArray array && array.Count == old.Count, at);
                for (var i = 0; i < old.Count; i++)
                    Holds(old[i], now![i], $"{at}[{i}]");
                break;
            case null:
                Assert.True(now is null, at);
                break;
            default:
                Assert.True(
                    now is JsonValue
                        && (
                            kept.ToJsonString() == now.ToJsonString()
                            || kept.GetValueKind() == JsonValueKind.Number && (double)kept == (double)now
                        ),
                    $"{at}: {kept.ToJsonString()} is {now?.ToJsonString()}"
                );
                break;
        }
    }

    [Theory]
    [InlineData("""{"b":1,"a":[1,2,{"y":"é","x":null}]}""", """{ "a" : [1, 2, {"x":null,"y":"\u00e9"}], "b":1 }""", true)]
    [InlineData("""{"a":1}""", """{"a":1,"b":null}""", false)]
    [InlineData("""{"a":[1,2]}""", """{"a":[2,1]}""", false)]
    public void TheHashIsThatOfTheContent(string one, string other, bool same) =>
        Assert.Equal(
            same,
            CanonicalJson.Hash(JsonDocument.Parse(one).RootElement) == CanonicalJson.Hash(JsonDocument.Parse(other).RootElement)
        );
}
