using System.Text.Json.Serialization;
using Garten.Core.Contracts;

namespace Garten.Server.Commands;

/// <summary>How results of commands are kept.</summary>
[JsonSourceGenerationOptions(PropertyNamingPolicy = JsonKnownNamingPolicy.CamelCase)]
[JsonSerializable(typeof(CommandResult))]
internal sealed partial class StoredResult : JsonSerializerContext;
