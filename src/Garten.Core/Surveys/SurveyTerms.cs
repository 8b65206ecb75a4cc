using System.Globalization;
using Garten.Core.Confirmation;
using Garten.Core.Seasons;

namespace Garten.Core.Surveys;

/// <summary>A round of a survey: a stretch of every year in which each of its places is visited.</summary>
/// <param name="Name">What it is called: "spring".</param>
/// <param name="From">Its first day, MM-DD.</param>
/// <param name="To">Its last day, MM-DD; before <paramref name="From"/> where it runs over the new year.</param>
public sealed record SurveyRound(string Name, string From, string To)
{
    /// <summary>Its days.</summary>
    public MonthDays Days() => new(From, To);
}

/// <summary>What is agreed of a survey besides its protocol.</summary>
/// <param name="Rounds">Its calendar: the rounds of a year; empty: each place once a year.</param>
/// <param name="Rules">Id of the table by which names are graded (<see cref="GradeRules"/>); empty where none was agreed.</param>
/// <param name="LeastGrade">The level of evidence below which the name of a marked plant counts as unsure.</param>
/// <param name="Licence">What may be done with the data; empty where nothing is said.</param>
public sealed record SurveyTerms(
    IReadOnlyList<SurveyRound> Rounds,
    string Rules = "",
    Grade LeastGrade = Grade.Tentative,
    string Licence = ""
)
{
    /// <summary>Most rounds of a year.</summary>
    public const int MostRounds = 24;

    /// <summary>Nothing agreed.</summary>
    public static SurveyTerms None { get; } = new([]);

    /// <summary>What in it can't be so, with the field; null where it is sound.</summary>
    public (string Field, string Message)? Problem()
    {
        if (Rounds.Count > MostRounds)
            return ("rounds", string.Create(CultureInfo.InvariantCulture, $"A year has up to {MostRounds} rounds."));
        foreach (var round in Rounds)
        {
            if (string.IsNullOrWhiteSpace(round.Name))
                return ("rounds", "Name every round.");
            if (!round.Days().IsSound || round.Days().IsAllYear)
                return ("rounds", $"{round.Name}: give its first and last day as month and day: 05-15 to 06-30.");
        }
        if (Rounds.Select(r => r.Name).Distinct(StringComparer.OrdinalIgnoreCase).Count() < Rounds.Count)
            return ("rounds", "Two rounds have one name.");
        return Rules.Length > 0 && GradeRules.Shipped.All(r => r.Id != Rules)
            ? ("rules", $"There is no table of grades “{Rules}”: {string.Join(", ", GradeRules.Shipped.Select(r => r.Id))}.")
            : null;
    }
}
