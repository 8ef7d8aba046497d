using Zendle.Core.Reviews.Acts;

namespace Zendle.Core.Reviews;

/// <summary>Another search that the one in view is held against.</summary>
/// <param name="Acts">What leads to it from nothing.</param>
/// <param name="Apart">Whether what it finds is taken away, rather than left.</param>
/// <param name="Said">What that leaves, in a few words.</param>
public sealed record OtherSearch(IReadOnlyList<StepAct> Acts, bool Apart, string Said)
{
    /// <summary>What it asks.</summary>
    public SearchState State() => SearchState.Of(Acts);
}
