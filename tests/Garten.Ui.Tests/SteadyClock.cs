using System.Diagnostics;
using OpenQA.Selenium.Support.UI;

namespace Garten.Ui.Tests;

/// <summary>Time as it goes by: a machine whose clock is set forward while a page is waited for would end the wait at once.</summary>
internal sealed class SteadyClock : IClock
{
    private static readonly DateTime Begun = DateTime.UnixEpoch;
    private readonly Stopwatch _gone = Stopwatch.StartNew();

    public static SteadyClock Shared { get; } = new();

    public DateTime Now => Begun + _gone.Elapsed;

    public DateTime LaterBy(TimeSpan delay) => Now + delay;

    public bool IsNowBefore(DateTime otherDateTime) => Now < otherDateTime;
}
