using System.Text.Json.Nodes;

namespace Garten.Testing;

/// <summary>Commands as a device makes them, for what drives devices and servers.</summary>
public static class Made
{
    /// <summary>A command of a kind, with an id of its own.</summary>
    public static JsonObject Command(string kind, params (string Field, JsonNode? Value)[] fields)
    {
        ArgumentNullException.ThrowIfNull(fields);
        var command = new JsonObject { ["kind"] = kind, ["id"] = Guid.CreateVersion7() };
        foreach (var (field, value) in fields)
            command[field] = value;
        return command;
    }

    /// <summary>Who records.</summary>
    public static JsonObject Recorder() => new() { ["id"] = "0197a1c0-5b00-7a11-9c3e-2f6f6b1d0d01", ["name"] = "Ilse Marrin" };

    /// <summary>A visit to a plant that was found alive.</summary>
    public static JsonObject Visit(Guid plant, string note) =>
        Command(
            "visitPlant",
            ("visitId", Guid.CreateVersion7()),
            ("plantId", plant),
            ("date", "2026-05-04"),
            ("recorder", Recorder()),
            ("state", "alive"),
            ("note", note)
        );

    /// <summary>A name for a plant, without a key.</summary>
    public static JsonObject Named(Guid plant, Guid place, string note, params string[] names) =>
        Command(
            "recordDetermination",
            ("determinationId", Guid.CreateVersion7()),
            ("occurrenceId", Guid.CreateVersion7()),
            ("plantId", plant),
            ("plantLabel", ""),
            ("placeId", place),
            ("eventDate", "2026-05-02"),
            ("recorder", Recorder()),
            ("startKey", ""),
            ("answers", new JsonArray()),
            ("names", new JsonArray([.. names.Select(n => JsonValue.Create(n))])),
            ("note", note)
        );

    /// <summary>A tag on a plant.</summary>
    public static JsonObject Tag(Guid plant, Guid place, string label) =>
        Command("tagPlant", ("plantId", plant), ("placeId", place), ("label", label), ("taggedOn", "2026-04-01"), ("recorder", Recorder()));
}
