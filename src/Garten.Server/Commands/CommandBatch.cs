using Garten.Core.Contracts;

namespace Garten.Server.Commands;

/// <summary>Commands in the order in which they were given.</summary>
public sealed record CommandBatch(IReadOnlyList<Command> Commands);

/// <summary>The results in the order of the commands.</summary>
public sealed record CommandBatchResponse(IReadOnlyList<CommandResult> Results);
