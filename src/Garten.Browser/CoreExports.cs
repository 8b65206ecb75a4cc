using System.Runtime.InteropServices.JavaScript;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Serialization.Metadata;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Keys;

namespace Garten.Browser;

/// <summary>The core for the browser's worker: JSON in, JSON out, nothing else.</summary>
public static partial class CoreExports
{
    // What goes to the page is read by JSON.parse alone and never put into HTML as it is: dashes and quotes needn't be spelled out.
    private static readonly CoreJson Json = new(new JsonSerializerOptions(CoreJson.Default.Options) { Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping });

    private static BenchShelf _shelf = new(new KeyShelf([]), CharacterTable.Empty, []);
    private static ReadyFlora? _flora;

    /// <summary>Reads a key text.</summary>
    [JSExport]
    public static string ReadKeyText(string request)
    {
        var text = JsonSerializer.Deserialize(request, Json.ReadKeyTextRequest)!.Text;
        return JsonSerializer.Serialize(KeyTextReader.Read(text), Json.KeyReading);
    }

    /// <summary>Puts key versions and taxa on the shelf that walks go through, in place of those that were there.</summary>
    [JSExport]
    public static string FillShelf(string shelf)
    {
        _shelf = JsonSerializer.Deserialize(shelf, Json.Shelf)!.Ready();
        return "true";
    }

    /// <summary>Takes a flora in its binary form, in place of the one that was there. Answers with its id.</summary>
    [JSExport]
    public static string LoadFlora(byte[] pack)
    {
        _flora = ReadyFlora.Read(pack);
        return JsonSerializer.Serialize(_flora.Pack.Id, Json.String);
    }

    /// <summary>Works out some more of what later answers need; "false" when all is ready.</summary>
    [JSExport]
    public static string WarmUp(int characters) => _flora?.Sifter.WarmUp(characters) == true ? "true" : "false";

    /// <summary>Sifts the loaded flora.</summary>
    [JSExport]
    public static string Sift(string request) => Answer(request, Json.SiftRequest, r => r.FloraId, (r, flora) => r.Sift(flora), Json.SiftResponse);

    /// <summary>Holds taxa of the loaded flora against each other.</summary>
    [JSExport]
    public static string Contrast(string request) => Answer(request, Json.ContrastRequest, r => r.FloraId, (r, flora) => r.Compare(flora), Json.ContrastResult);

    /// <summary>Confirms a name of the loaded flora.</summary>
    [JSExport]
    public static string Confirm(string request) => Answer(request, Json.ConfirmRequest, r => r.FloraId, (r, flora) => r.Confirm(flora), Json.ConfirmResult);

    /// <summary>The fewest visits that answer what is open.</summary>
    [JSExport]
    public static string PlanVisits(string request) => JsonSerializer.Serialize(JsonSerializer.Deserialize(request, Json.VisitsRequest)!.Plan(), Json.VisitsResponse);

    /// <summary>What is alone on a list of the loaded flora.</summary>
    [JSExport]
    public static string Giveaways(string request) => Answer(request, Json.GiveawayRequest, r => r.FloraId, (r, flora) => r.Find(flora), Json.GiveawayResponse);

    /// <summary>Taxa of the loaded flora with what they are like.</summary>
    [JSExport]
    public static string Describe(string request) => Answer(request, Json.DescribeRequest, r => r.FloraId, (r, flora) => r.Describe(flora), Json.IReadOnlyListDescribedTaxon);

    /// <summary>What a taxon of the loaded flora is taken for.</summary>
    [JSExport]
    public static string Near(string request) => Answer(request, Json.NearRequest, r => r.FloraId, (r, flora) => r.Find(flora), Json.IReadOnlyListString);

    // Another flora may have been loaded since it was asked: then there is no answer, and the page asks again.
    private static string Answer<TRequest, TAnswer>(string request, JsonTypeInfo<TRequest> requestType, Func<TRequest, string> floraOf, Func<TRequest, ReadyFlora, TAnswer> answer, JsonTypeInfo<TAnswer> answerType)
    {
        var read = JsonSerializer.Deserialize(request, requestType)!;
        if (_flora?.Pack.Id != floraOf(read)) throw new InvalidOperationException("This flora isn't loaded.");
        return JsonSerializer.Serialize(answer(read, _flora), answerType);
    }

    /// <summary>Follows the keys on the shelf.</summary>
    [JSExport]
    public static string Walk(string request)
    {
        var walk = JsonSerializer.Deserialize(request, Json.WalkRequest)!;
        return JsonSerializer.Serialize(KeyWalk.Follow(_shelf.Keys, walk.Start, walk.Answers), Json.WalkState);
    }

    /// <summary>Follows the keys on the shelf with a sheet of evidence.</summary>
    [JSExport]
    public static string Bench(string request) =>
        JsonSerializer.Serialize(JsonSerializer.Deserialize(request, Json.BenchRequest)!.Follow(_shelf), Json.BenchState);

    /// <summary>What awaits one who starts any of the keys on the shelf.</summary>
    [JSExport]
    public static string Outlook(string request) =>
        JsonSerializer.Serialize(JsonSerializer.Deserialize(request, Json.OutlookRequest)!.Look(_shelf), Json.IReadOnlyListKeyOutlook);

    /// <summary>Reads readings while they are typed.</summary>
    [JSExport]
    public static string Measure(string request) =>
        JsonSerializer.Serialize(JsonSerializer.Deserialize(request, Json.MeasureRequest)!.Read(_shelf, _flora?.Sifter.Columns), Json.MeasureResponse);

    /// <summary>The statements of a key on the shelf with their readings.</summary>
    [JSExport]
    public static string Statements(string hash) =>
        JsonSerializer.Serialize(_shelf.Keys.Find(JsonSerializer.Deserialize(hash, Json.String)!) is { } version ? CoupletReadings.Of(_shelf, version) : [], Json.IReadOnlyListCoupletReadings);
}
