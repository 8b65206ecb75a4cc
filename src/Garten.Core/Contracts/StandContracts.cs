using System.Globalization;
using Garten.Core.Evidence;
using Garten.Core.Identification;
using Garten.Core.Packs;
using Garten.Core.Quantities;

namespace Garten.Core.Contracts;

/// <summary>A plant of a stand as it is asked about.</summary>
/// <param name="Label">What it is called.</param>
/// <param name="Observations">What was seen of it; may be left out.</param>
/// <param name="Sheet">The same as facts of a sheet.</param>
public sealed record StandPlantRequest(
    string Label,
    IReadOnlyList<SiftObservation>? Observations = null,
    IReadOnlyList<Observation>? Sheet = null
);

/// <summary>A stand to be judged as a whole.</summary>
/// <param name="FloraId">The flora.</param>
/// <param name="Plants">Its plants, unmarked ones too.</param>
/// <param name="Options">How the list is weighed before anything is seen.</param>
public sealed record StandRequest(string FloraId, IReadOnlyList<StandPlantRequest>? Plants = null, SiftRequestOptions? Options = null)
    : IFloraRequest,
        IPlacedRequest
{
    string? IPlacedRequest.PlaceToFind => Options is { At: null } options ? options.Place : null;

    string IPlacedRequest.PlaceField => "options.place";

    IPlacedRequest IPlacedRequest.At(SiftPlace place) => this with { Options = (Options ?? new SiftRequestOptions()) with { At = place } };

    /// <summary>Judges it.</summary>
    /// <param name="flora">The flora, made ready.</param>
    /// <exception cref="RequestException">Something in it can't be used.</exception>
    public StandResponse Judge(ReadyFlora flora)
    {
        ArgumentNullException.ThrowIfNull(flora);
        var asked = Plants ?? [];
        if (asked.Count == 0)
            throw new RequestException("plants", "Give the plants of the stand.");
        if (asked.Count > Stand.MostPlants)
            throw new RequestException("plants", $"Up to {Stand.MostPlants} plants are judged together.");
        var plants = new List<StandPlant>(asked.Count);
        for (var i = 0; i < asked.Count; i++)
        {
            try
            {
                plants.Add(new StandPlant(asked[i].Label ?? "", SiftRequest.Read(flora, asked[i].Observations, asked[i].Sheet)));
            }
            catch (RequestException wrong)
            {
                throw new RequestException(string.Create(CultureInfo.InvariantCulture, $"plants[{i}].{wrong.Field}"), wrong.Message);
            }
        }
        var options = Options ?? new SiftRequestOptions();
        var stand = Stand.Of(
            flora.Sifter,
            plants,
            new SiftQuery(
                [],
                options.Prior == SiftPrior.Plausible,
                options.At,
                RequestDay.OrNone(options.Date, "options.date"),
                Narrowing: options.Narrowing,
                NotOnList: SiftRequest.Known(options.Strangers)
            )
        );
        string Name(string taxon) =>
            taxon.Length == 0 ? ""
            : taxon == Sifter.NotOnList ? Stranger
            : flora.NameOf(taxon);
        return new StandResponse(
            [.. stand.Standing.Select(t => new StandName(t.Taxon, Name(t.Taxon), t.Probability))],
            stand.Mixed,
            stand.IsMixed,
            stand.TooFew,
            stand.Share,
            [.. stand.Members.Select(m => new StandPlantStanding(m.Label, m.Looks, m.OfTheStand, Name(m.Alone), m.AloneProbability))],
            Words(stand, Name(stand.Standing[0].Taxon))
        );
    }

    private const string Stranger = "not on this list";

    private static string Words(Stand stand, string name)
    {
        var first = stand.Standing[0];
        var who = first.Taxon == Sifter.NotOnList ? "a taxon that isn’t on this list" : name;
        var sentence = $"Most of it is {who}: {Percent.OfProbability(first.Probability)}.";
        if (stand.TooFew)
            return $"{sentence} Too few plants or looks to tell whether the stand is mixed.";
        var odd = stand.Members.Where(m => m.OfTheStand < 0.5).Select(m => m.Label).ToList();
        return stand.IsMixed
                ? $"{sentence} The stand is mixed ({Percent.OfProbability(stand.Mixed)}); "
                    + $"judged otherwise: {(odd.Count == 0 ? "none by itself" : string.Join(", ", odd))}."
            : odd.Count == 0 ? $"{sentence} Nothing speaks for more than one taxon."
            : $"{sentence} Look again at {string.Join(", ", odd)}: by their own looks they are another taxon.";
    }
}

/// <summary>A taxon that a stand may be of.</summary>
/// <param name="Taxon">Id of the taxon.</param>
/// <param name="Name">Its name; "not on this list" for one that isn't.</param>
/// <param name="Probability">That most of the stand is of it.</param>
public sealed record StandName(string Taxon, string Name, double Probability)
{
    /// <summary>The probability in words.</summary>
    public string InWords => Percent.OfProbability(Probability);
}

/// <summary>A plant judged with its stand.</summary>
/// <param name="Label">What it is called.</param>
/// <param name="Looks">How many looks there are at it.</param>
/// <param name="OfTheStand">Probability that it is of the first taxon.</param>
/// <param name="Alone">Name of the taxon that its own looks speak for; empty where there are none.</param>
/// <param name="AloneProbability">How probable that is by its own looks alone.</param>
public sealed record StandPlantStanding(string Label, int Looks, double OfTheStand, string Alone, double AloneProbability)
{
    /// <summary>How it stands, in words.</summary>
    public string InWords =>
        Looks == 0
            ? $"not looked at; follows the others, {Percent.OfProbability(OfTheStand)}"
            : $"{Percent.OfProbability(OfTheStand)}; by its own looks {Alone}, {Percent.OfProbability(AloneProbability)}";
}

/// <summary>A stand as it was judged.</summary>
/// <param name="Standing">The taxa, likeliest first.</param>
/// <param name="Mixed">Probability that it is mixed.</param>
/// <param name="IsMixed">Whether that is to be said.</param>
/// <param name="TooFew">Whether there are too few plants or looks to tell.</param>
/// <param name="Share">Expected share of plants of the first taxon.</param>
/// <param name="Plants">The plants.</param>
/// <param name="InWords">All of it in words.</param>
public sealed record StandResponse(
    IReadOnlyList<StandName> Standing,
    double Mixed,
    bool IsMixed,
    bool TooFew,
    double Share,
    IReadOnlyList<StandPlantStanding> Plants,
    string InWords
);
