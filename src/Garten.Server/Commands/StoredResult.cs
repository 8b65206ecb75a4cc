using System.Text.Json;
using System.Text.Json.Serialization;
using Garten.Core.Contracts;
using Garten.Core.Floras;

namespace Garten.Server.Commands;

/// <summary>How results of commands are kept. Enumerations stand in it as numbers, as they always did.</summary>
[JsonSourceGenerationOptions(
    PropertyNamingPolicy = JsonKnownNamingPolicy.CamelCase,
    Converters = [typeof(StoredNumber<CommandStatus>), typeof(StoredNumber<ProblemSeverity>)]
)]
[JsonSerializable(typeof(CommandResult))]
internal sealed partial class StoredResult : JsonSerializerContext;

/// <summary>An enumeration as its number.</summary>
internal sealed class StoredNumber<T> : JsonConverter<T>
    where T : struct, Enum
{
    /// <inheritdoc />
    public override T Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
        (T)Enum.ToObject(typeof(T), reader.GetInt32());

    /// <inheritdoc />
    public override void Write(Utf8JsonWriter writer, T value, JsonSerializerOptions options) =>
        writer.WriteNumberValue(Convert.ToInt32(value, System.Globalization.CultureInfo.InvariantCulture));
}
