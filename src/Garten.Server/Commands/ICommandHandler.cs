using Garten.Core.Contracts;

namespace Garten.Server.Commands;

/// <summary>Carries out one kind of command. It stands in the folder of its feature and is found there by its type; nothing else has to
/// name it.</summary>
/// <typeparam name="T">The kind of command.</typeparam>
internal interface ICommandHandler<in T>
    where T : Command
{
    /// <summary>What takes turns on it: commands that name the same thing are carried out one after the other, so that what each checks
    /// stays true until it is written.</summary>
    IEnumerable<string> LocksOf(T command) => [];

    /// <summary>What it changes, by the names of the feed of changes (<see cref="Features.Changes.ChangeSubject"/>): devices fetch that
    /// anew.</summary>
    IEnumerable<string> AboutOf(T command);

    /// <summary>Checks the command and writes what it says, in the context's transaction. What was written before a refusal is taken
    /// back.</summary>
    /// <exception cref="CommandRefusedException">The command can't be carried out, and why.</exception>
    Task<CommandResult> HandleAsync(T command, CommandContext context, CancellationToken stop);
}
