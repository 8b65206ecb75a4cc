using Garten.Core.Contracts;
using Garten.Core.Keys;

namespace Garten.Server.Features.Keys;

/// <summary>A key as the list shows it.</summary>
/// <param name="Hash">Hash of its newest version.</param>
/// <param name="Title">Its title.</param>
/// <param name="Version">Number of the newest version, from 1.</param>
/// <param name="Couplets">How many couplets it has.</param>
/// <param name="Taxa">How many taxa it can end at, not counting those of keys it hands over to.</param>
/// <param name="HandsOverTo">The keys it hands over to, as its leads name them.</param>
/// <param name="EnteredFrom">Titles of the keys that hand over to it; empty for a key to begin with.</param>
/// <param name="Notes">Lines below its title.</param>
/// <param name="AddedAt">When the version was saved.</param>
/// <param name="Source">Where its text is from; null where nothing is said of it.</param>
public sealed record KeySummary(
    string Hash,
    string Title,
    int Version,
    int Couplets,
    int Taxa,
    IReadOnlyList<string> HandsOverTo,
    IReadOnlyList<string> EnteredFrom,
    IReadOnlyList<string> Notes,
    DateTimeOffset AddedAt,
    TextSource? Source = null
)
{
    /// <summary>Its couplets and ends as they are drawn; of a large key its beginning.</summary>
    public IReadOnlyList<KeyNode> Shape { get; init; } = [];
}

/// <summary>A version of a key with its text as it was typed.</summary>
public sealed record KeyDetail(
    string Hash,
    string Title,
    int Version,
    Key Key,
    string SourceText,
    IReadOnlyList<KeyVersionSummary> Versions,
    TextSource? Source = null
);

/// <summary>A flora that was made of a key's statements.</summary>
/// <param name="FloraId">Its id.</param>
public sealed record KeyFloraMade(string FloraId);
