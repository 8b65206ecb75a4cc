using System.Runtime.InteropServices.JavaScript;
using System.Text.Json;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Keys;

namespace Garten.Browser;

/// <summary>The core for the browser's worker: JSON in, JSON out, nothing else.</summary>
public static partial class CoreExports
{
    private static BenchShelf _shelf = new(new KeyShelf([]), CharacterTable.Empty, []);
    private static ReadyFlora? _flora;

    /// <summary>Reads a key text.</summary>
    [JSExport]
    public static string ReadKeyText(string request)
    {
        var text = JsonSerializer.Deserialize(request, CoreJson.Default.ReadKeyTextRequest)!.Text;
        return JsonSerializer.Serialize(KeyTextReader.Read(text), CoreJson.Default.KeyReading);
    }

    /// <summary>Puts key versions and taxa on the shelf that walks go through, in place of those that were there.</summary>
    [JSExport]
    public static string FillShelf(string shelf)
    {
        _shelf = JsonSerializer.Deserialize(shelf, CoreJson.Default.Shelf)!.Ready();
        return "true";
    }

    /// <summary>Takes a flora in its binary form, in place of the one that was there. Answers with its id.</summary>
    [JSExport]
    public static string LoadFlora(byte[] pack)
    {
        _flora = ReadyFlora.Read(pack);
        return JsonSerializer.Serialize(_flora.Pack.Id, CoreJson.Default.String);
    }

    /// <summary>Works out some more of what later answers need; "false" when all is ready.</summary>
    [JSExport]
    public static string WarmUp(int characters) => _flora?.Sifter.WarmUp(characters) == true ? "true" : "false";

    /// <summary>Sifts the loaded flora.</summary>
    [JSExport]
    public static string Sift(string request) => JsonSerializer.Serialize(JsonSerializer.Deserialize(request, CoreJson.Default.SiftRequest)!.Sift(Loaded()), CoreJson.Default.SiftResponse);

    /// <summary>Holds taxa of the loaded flora against each other.</summary>
    [JSExport]
    public static string Contrast(string request) => JsonSerializer.Serialize(JsonSerializer.Deserialize(request, CoreJson.Default.ContrastRequest)!.Compare(Loaded()), CoreJson.Default.ContrastResult);

    /// <summary>What is alone on a list of the loaded flora.</summary>
    [JSExport]
    public static string Giveaways(string request) => JsonSerializer.Serialize(JsonSerializer.Deserialize(request, CoreJson.Default.GiveawayRequest)!.Find(Loaded()), CoreJson.Default.GiveawayResponse);

    /// <summary>Taxa of the loaded flora with what they are like.</summary>
    [JSExport]
    public static string Describe(string request) => JsonSerializer.Serialize(JsonSerializer.Deserialize(request, CoreJson.Default.DescribeRequest)!.Describe(Loaded()), CoreJson.Default.IReadOnlyListDescribedTaxon);

    private static ReadyFlora Loaded() => _flora ?? throw new InvalidOperationException("No flora is loaded.");

    /// <summary>Follows the keys on the shelf.</summary>
    [JSExport]
    public static string Walk(string request)
    {
        var walk = JsonSerializer.Deserialize(request, CoreJson.Default.WalkRequest)!;
        return JsonSerializer.Serialize(KeyWalk.Follow(_shelf.Keys, walk.Start, walk.Answers), CoreJson.Default.WalkState);
    }

    /// <summary>Follows the keys on the shelf with a sheet of evidence.</summary>
    [JSExport]
    public static string Bench(string request) =>
        JsonSerializer.Serialize(JsonSerializer.Deserialize(request, CoreJson.Default.BenchRequest)!.Follow(_shelf), CoreJson.Default.BenchState);

    /// <summary>What awaits one who starts any of the keys on the shelf.</summary>
    [JSExport]
    public static string Outlook(string request) =>
        JsonSerializer.Serialize(JsonSerializer.Deserialize(request, CoreJson.Default.OutlookRequest)!.Look(_shelf), CoreJson.Default.IReadOnlyListKeyOutlook);

    /// <summary>Reads readings while they are typed.</summary>
    [JSExport]
    public static string Measure(string request) =>
        JsonSerializer.Serialize(JsonSerializer.Deserialize(request, CoreJson.Default.MeasureRequest)!.Read(_shelf), CoreJson.Default.MeasureResponse);

    /// <summary>The statements of a key on the shelf with their readings.</summary>
    [JSExport]
    public static string Statements(string hash) =>
        JsonSerializer.Serialize(_shelf.Keys.Find(JsonSerializer.Deserialize(hash, CoreJson.Default.String)!) is { } version ? CoupletReadings.Of(_shelf, version) : [], CoreJson.Default.IReadOnlyListCoupletReadings);
}
