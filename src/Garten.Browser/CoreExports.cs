using System.Runtime.InteropServices.JavaScript;
using System.Text.Json;
using System.Text.Json.Serialization.Metadata;
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
    public static string Sift(string request) =>
        Answer(request, CoreJson.Default.SiftRequest, r => r.FloraId, (r, flora) => r.Sift(flora), CoreJson.Default.SiftResponse);

    /// <summary>Holds taxa of the loaded flora against each other.</summary>
    [JSExport]
    public static string Contrast(string request) =>
        Answer(request, CoreJson.Default.ContrastRequest, r => r.FloraId, (r, flora) => r.Compare(flora), CoreJson.Default.ContrastResult);

    /// <summary>Confirms a name of the loaded flora.</summary>
    [JSExport]
    public static string Confirm(string request) =>
        Answer(request, CoreJson.Default.ConfirmRequest, r => r.FloraId, (r, flora) => r.Confirm(flora), CoreJson.Default.ConfirmResult);

    /// <summary>The fewest visits that answer what is open.</summary>
    [JSExport]
    public static string PlanVisits(string request) =>
        JsonSerializer.Serialize(
            JsonSerializer.Deserialize(request, CoreJson.Default.VisitsRequest)!.Plan(),
            CoreJson.Default.VisitsResponse
        );

    /// <summary>What a visit still answers on another date.</summary>
    [JSExport]
    public static string MoveVisit(string request) =>
        JsonSerializer.Serialize(
            JsonSerializer.Deserialize(request, CoreJson.Default.MoveVisitRequest)!.Move(),
            CoreJson.Default.MovedVisit
        );

    /// <summary>How questions stand on a day.</summary>
    [JSExport]
    public static string Standings(string request) =>
        JsonSerializer.Serialize(
            JsonSerializer.Deserialize(request, CoreJson.Default.StandingRequest)!.Tell(),
            CoreJson.Default.IReadOnlyListQuestionStanding
        );

    /// <summary>The year of a list of taxa of the loaded flora.</summary>
    [JSExport]
    public static string Year(string request) =>
        Answer(request, CoreJson.Default.SeasonRequest, r => r.FloraId, (r, flora) => r.Look(flora), CoreJson.Default.SeasonResponse);

    /// <summary>What is alone on a list of the loaded flora.</summary>
    [JSExport]
    public static string Giveaways(string request) =>
        Answer(request, CoreJson.Default.GiveawayRequest, r => r.FloraId, (r, flora) => r.Find(flora), CoreJson.Default.GiveawayResponse);

    /// <summary>Taxa of the loaded flora with what they are like.</summary>
    [JSExport]
    public static string Describe(string request) =>
        Answer(
            request,
            CoreJson.Default.DescribeRequest,
            r => r.FloraId,
            (r, flora) => r.Describe(flora),
            CoreJson.Default.IReadOnlyListDescribedTaxon
        );

    /// <summary>What a taxon of the loaded flora is taken for.</summary>
    [JSExport]
    public static string Near(string request) =>
        Answer(request, CoreJson.Default.NearRequest, r => r.FloraId, (r, flora) => r.Find(flora), CoreJson.Default.IReadOnlyListString);

    // Another flora may have been loaded since it was asked: then there is no answer, and the page asks again.
    private static string Answer<TRequest, TAnswer>(
        string request,
        JsonTypeInfo<TRequest> requestType,
        Func<TRequest, string> floraOf,
        Func<TRequest, ReadyFlora, TAnswer> answer,
        JsonTypeInfo<TAnswer> answerType
    )
    {
        var read = JsonSerializer.Deserialize(request, requestType)!;
        if (_flora?.Pack.Id != floraOf(read))
            throw new InvalidOperationException("This flora isn't loaded.");
        return JsonSerializer.Serialize(answer(read, _flora), answerType);
    }

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
        JsonSerializer.Serialize(
            JsonSerializer.Deserialize(request, CoreJson.Default.BenchRequest)!.Follow(_shelf),
            CoreJson.Default.BenchState
        );

    /// <summary>What awaits one who starts any of the keys on the shelf.</summary>
    [JSExport]
    public static string Outlook(string request) =>
        JsonSerializer.Serialize(
            JsonSerializer.Deserialize(request, CoreJson.Default.OutlookRequest)!.Look(_shelf),
            CoreJson.Default.IReadOnlyListKeyOutlook
        );

    /// <summary>Reads readings while they are typed.</summary>
    [JSExport]
    public static string Measure(string request) =>
        JsonSerializer.Serialize(
            JsonSerializer.Deserialize(request, CoreJson.Default.MeasureRequest)!.Read(_shelf, _flora?.Sifter.Columns),
            CoreJson.Default.MeasureResponse
        );

    /// <summary>The statements of a key on the shelf with their readings.</summary>
    [JSExport]
    public static string Statements(string hash) =>
        JsonSerializer.Serialize(
            _shelf.Keys.Find(JsonSerializer.Deserialize(hash, CoreJson.Default.String)!) is { } version
                ? CoupletReadings.Of(_shelf, version)
                : [],
            CoreJson.Default.IReadOnlyListCoupletReadings
        );
}
