using Garten.Core.Contracts;

namespace Garten.Server.Features.Records;

/// <summary>A page of the record list.</summary>
/// <param name="Records">Newest first.</param>
/// <param name="Next">Where the next page begins; null on the last one.</param>
/// <param name="Names">All names that records have, for the filter.</param>
public sealed record RecordPage(IReadOnlyList<RecordLine> Records, string? Next, IReadOnlyList<string> Names);
