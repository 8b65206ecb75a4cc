using System.Text.Json;

namespace Garten.Server.Features.Plants;

/// <summary>A place in a list of plants: the line after which the next page begins.</summary>
internal sealed record PlantCursor(string PlaceName, string Label, Guid PlantId)
{
    /// <summary>Reads where a page is to begin; null for the first one.</summary>
    /// <returns>False where something was given that isn't a cursor.</returns>
    public static bool TryRead(string? after, out PlantCursor? cursor)
    {
        cursor = after is { Length: > 0 } ? Parse(after) : null;
        return cursor is not null || after is not { Length: > 0 };
    }

    /// <summary>Reads a cursor as it was given out; null where it isn't one.</summary>
    public static PlantCursor? Parse(string text)
    {
        try
        {
            var parts = JsonSerializer.Deserialize<string[]>(Convert.FromBase64String(text.Replace('-', '+').Replace('_', '/')));
            return
                parts is [{ } place, { } label, { } id]
                && !place.Contains('\0', StringComparison.Ordinal)
                && !label.Contains('\0', StringComparison.Ordinal)
                && Guid.TryParse(id, out var plant)
                ? new PlantCursor(place, label, plant)
                : null;
        }
        catch (Exception broken) when (broken is FormatException or JsonException)
        {
            return null;
        }
    }

    /// <summary>As it goes over the wire: letters, digits, "-", "_" and "=".</summary>
    public override string ToString() =>
        Convert
            .ToBase64String(JsonSerializer.SerializeToUtf8Bytes(new[] { PlaceName, Label, PlantId.ToString() }))
            .Replace('+', '-')
            .Replace('/', '_');
}
