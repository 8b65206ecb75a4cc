using System.Buffers;
using System.Security.Cryptography;
using System.Text.Json;

namespace Garten.Server.Commands;

/// <summary>JSON in one form: whatever order, white space or escapes it was written with, the same content has the same hash.</summary>
internal static class CanonicalJson
{
    /// <summary>SHA-256 of the canonical form, in small hexadecimal letters: properties in the order of their names, numbers as they were
    /// written, nothing between.</summary>
    public static string Hash(JsonElement element)
    {
        var buffer = new ArrayBufferWriter<byte>();
        using (var writer = new Utf8JsonWriter(buffer))
            Write(element, writer);
        return Convert.ToHexStringLower(SHA256.HashData(buffer.WrittenSpan));
    }

    private static void Write(JsonElement element, Utf8JsonWriter writer)
    {
        switch (element.ValueKind)
        {
            case JsonValueKind.Object:
                writer.WriteStartObject();
                foreach (var property in element.EnumerateObject().OrderBy(p => p.Name, StringComparer.Ordinal))
                {
                    writer.WritePropertyName(property.Name);
                    Write(property.Value, writer);
                }
                writer.WriteEndObject();
                break;
            case JsonValueKind.Array:
                writer.WriteStartArray();
                foreach (var item in element.EnumerateArray())
                    Write(item, writer);
                writer.WriteEndArray();
                break;
            default:
                element.WriteTo(writer);
                break;
        }
    }
}
