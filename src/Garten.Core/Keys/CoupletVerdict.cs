using System.Text.Json.Serialization;
using Garten.Core.Language;
using Garten.Core.Quantities;

namespace Garten.Core.Keys;

/// <summary>How a statement stands to what was seen.</summary>
[JsonConverter(typeof(CamelCaseWords<StatementFit>))]
public enum StatementFit
{
    /// <summary>It fits.</summary>
    Fits,

    /// <summary>It fits at its edge, or in part.</summary>
    AtTheEdge,

    /// <summary>Hardly.</summary>
    Doubtful,

    /// <summary>It doesn't.</summary>
    Conflicts,

    /// <summary>Nothing of what it speaks of is on the sheet.</summary>
    NotSeen,

    /// <summary>It isn't understood: it can be weighed by hand.</summary>
    Unread,
}

/// <summary>A statement that isn't understood, weighed by hand.</summary>
/// <param name="KeyVersion">Hash of the version.</param>
/// <param name="Couplet">Label of the couplet.</param>
/// <param name="Lead">Index of the lead from 0.</param>
/// <param name="Statement">Index of the statement from 0.</param>
/// <param name="Fits">Whether it fits the plant.</param>
public sealed record HandWeighing(string KeyVersion, string Couplet, int Lead, int Statement, bool Fits);

/// <summary>A statement with its reading and how it stands.</summary>
/// <param name="Reading">The reading.</param>
/// <param name="Fit">How it stands.</param>
/// <param name="Seen">What was seen of it, in words and figures: "62 mm (n 4), 3–6 cm wanted"; empty where nothing.</param>
/// <param name="LogRatio">ln of what it contributes to its lead against the mean of the couplet's leads; 0 where nothing was seen.</param>
public sealed record StatementVerdict(StatementReading Reading, StatementFit Fit, string Seen, double LogRatio)
{
    /// <summary>What goes onto the sheet where a person says that it fits; empty where it is weighed by hand.</summary>
    public IReadOnlyList<ToldStates> IfFits { get; init; } = [];

    /// <summary>What goes onto the sheet where a person says that it doesn't: the states that the statement leaves out.</summary>
    public IReadOnlyList<ToldStates> IfNot { get; init; } = [];
}

/// <summary>States of a character that a person told by agreeing with a statement, or by denying it.</summary>
/// <param name="Character">Id of the character.</param>
/// <param name="States">Ids of the states: it is one of them.</param>
public sealed record ToldStates(string Character, IReadOnlyList<string> States);

/// <summary>A lead weighed by the sheet.</summary>
/// <param name="Statements">Its statements.</param>
/// <param name="Share">Its share of the couplet, 0 to 1; equal shares where nothing is on the sheet.</param>
public sealed record LeadVerdict(IReadOnlyList<StatementVerdict> Statements, double Share)
{
    /// <summary>Its share in words.</summary>
    public string ShareInWords => Percent.OfProbability(Share);
}

/// <summary>What the sheet says of a couplet.</summary>
[JsonConverter(typeof(CamelCaseWords<CoupletCall>))]
public enum CoupletCall
{
    /// <summary>Nothing of it is on the sheet.</summary>
    Unseen,

    /// <summary>Odds under 3 to 1.</summary>
    Undecided,

    /// <summary>3 to 1 or more.</summary>
    Leaning,

    /// <summary>20 to 1 or more: the sheet decides it.</summary>
    Clear,
}

/// <summary>A couplet weighed by the sheet.</summary>
/// <param name="KeyVersion">Hash of the version.</param>
/// <param name="Couplet">Label of the couplet.</param>
/// <param name="Leads">Lead by lead.</param>
/// <param name="Call">What the sheet says.</param>
/// <param name="Best">Index of the best lead; null where nothing is on the sheet.</param>
/// <param name="Odds">The best lead against the sum of the rest; 1 where nothing is on the sheet.</param>
/// <param name="Words">The same in words.</param>
/// <param name="Reasons">Why something was judged otherwise, such as leaves of the shade.</param>
public sealed record CoupletVerdict(
    string KeyVersion,
    string Couplet,
    IReadOnlyList<LeadVerdict> Leads,
    CoupletCall Call,
    int? Best,
    double Odds,
    string Words,
    IReadOnlyList<string> Reasons
)
{
    /// <summary>From these odds on a couplet is decided.</summary>
    public const double ClearOdds = 20;

    /// <summary>From these odds on it leans.</summary>
    public const double LeaningOdds = 3;

    /// <summary>Probability that a statement weighed by hand is called fitting under a true lead; the rest under a false one.</summary>
    public const double HandTrue = 0.85;

    internal static CoupletCall CallOf(double odds) =>
        odds >= ClearOdds ? CoupletCall.Clear
        : odds >= LeaningOdds ? CoupletCall.Leaning
        : CoupletCall.Undecided;

    internal static StatementFit Of(Fit fit) =>
        fit switch
        {
            Fit.Fits => StatementFit.Fits,
            Fit.AtTheEdge => StatementFit.AtTheEdge,
            Fit.Doubtful => StatementFit.Doubtful,
            _ => StatementFit.Conflicts,
        };
}
