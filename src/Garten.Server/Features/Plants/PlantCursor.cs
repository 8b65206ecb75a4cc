using System.Text.Json;

namespace Garten.Server.Features.Plants;

/// <summary>A place in a list of plants: the line after which the next page begins.</summary>
internal sealed record PlantCursor(string PlaceName, string Label, Guid PlantId)
{
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
