using System.Text.Json.Serialization;
using Garten.Server.Commands;
using Garten.Server.Features.Devices;
using Garten.Server.Features.Floras;
using Garten.Server.Features.Health;
using Garten.Server.Features.Keys;
using Garten.Server.Features.Records;
using Garten.Server.Features.Sandbox;

namespace Garten.Server.Hosting;

/// <summary>How the types that the server alone has are written as JSON; those of the core are written as its own context says.</summary>
[JsonSourceGenerationOptions(PropertyNamingPolicy = JsonKnownNamingPolicy.CamelCase)]
[JsonSerializable(typeof(CommandBatch))]
[JsonSerializable(typeof(CommandBatchResponse))]
[JsonSerializable(typeof(DeviceHere))]
[JsonSerializable(typeof(DeviceList))]
[JsonSerializable(typeof(KeyFloraMade))]
[JsonSerializable(typeof(PairingOffer))]
[JsonSerializable(typeof(PairingRequest))]
[JsonSerializable(typeof(PairRequest))]
[JsonSerializable(typeof(RecordPage))]
[JsonSerializable(typeof(HealthReport))]
[JsonSerializable(typeof(SandboxOpened))]
[JsonSerializable(typeof(FloraCheck))]
[JsonSerializable(typeof(FloraRefusal))]
[JsonSerializable(typeof(FloraVersion))]
[JsonSerializable(typeof(GlossaryEntry))]
[JsonSerializable(typeof(KeepDescriptionsRequest))]
internal sealed partial class ServerJson : JsonSerializerContext;
