using Garten.Core.Contracts;

namespace Garten.Server.Commands;

/// <summary>A command that can't be carried out; everything it began is taken back.</summary>
internal sealed class CommandRefusedException : Exception
{
    /// <summary>Says why.</summary>
    public CommandRefusedException(ProblemReport problem)
        : base(problem?.Detail) => Problem = problem!;

    /// <summary>Why it was refused.</summary>
    public ProblemReport Problem { get; }
}
