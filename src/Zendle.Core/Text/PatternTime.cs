namespace Zendle.Core.Text;

/// <summary>How long a regular expression may look at one text that came from outside.</summary>
public static class PatternTime
{
    /// <summary>
    /// The bound, in milliseconds by the clock: far beyond what any pattern here needs, since a machine that stands still for
    /// a moment must not turn a sound document into a fault, and short enough that a text made to be slow holds nobody up.
    /// </summary>
    public const int Milliseconds = 5_000;
}
