namespace Garten.Testing;

/// <summary>A fault, and its end.</summary>
/// <param name="Name">What it is called.</param>
/// <param name="Breaks">Has it happen.</param>
/// <param name="Mends">Ends it.</param>
public sealed record Fault(string Name, Func<Task> Breaks, Func<Task> Mends);

/// <summary>How long the devices work until the next fault.</summary>
/// <param name="Keep">At most, where they keep through the page's own outbox.</param>
/// <param name="Write">How much longer at most, where they write into forms.</param>
/// <param name="FormOneIn">Before one fault in so many both write into forms.</param>
public sealed record FaultyPace(TimeSpan Keep, TimeSpan Write, int FormOneIn);

/// <summary>What came of it.</summary>
/// <param name="Accepted">Facts that the page had accepted.</param>
/// <param name="ByForm">Of these those that were typed into a form.</param>
/// <param name="Faults">How often each fault happened.</param>
/// <param name="Lost">Accepted and not there.</param>
/// <param name="Doubled">There more than once, accepted or not.</param>
/// <param name="Half">There without a part of it.</param>
/// <param name="Refused">What the server refused, and waits for a person.</param>
/// <param name="Unsaid">Begun, never said to be accepted, and there all the same.</param>
/// <param name="Cleared">How often a browser came back with an empty store: what waited in it is lost by the browser's own doing.</param>
/// <param name="Hashes">The hash of all facts on each device at the end.</param>
public sealed record FaultyOutcome(
    int Accepted,
    int ByForm,
    IReadOnlyDictionary<string, int> Faults,
    IReadOnlyList<string> Lost,
    IReadOnlyList<string> Doubled,
    IReadOnlyList<string> Half,
    long Refused,
    int Unsaid,
    int Cleared,
    IReadOnlyList<string> Hashes
);
