namespace Zendle.Core.Maps;

/// <summary>What the colour of a mark says, beside a number or its lane, never alone.</summary>
public enum MapColour
{
    /// <summary>Its lane.</summary>
    Lane,

    /// <summary>The first of its tags, whose number stands at the mark.</summary>
    Tag,
}

/// <summary>How a lane is shown.</summary>
public enum LaneShown
{
    /// <summary>With its works.</summary>
    Open,

    /// <summary>As a line with its name.</summary>
    Folded,

    /// <summary>Not at all.</summary>
    Hidden,
}

/// <summary>What a person did to a lane.</summary>
/// <param name="Kind">What the lane holds.</param>
/// <param name="Label">Name of its value; empty for the lanes of what is left over.</param>
/// <param name="Shown">How it is shown.</param>
/// <param name="Name">What it is called for the picture; null for the name of its value.</param>
public sealed record LaneLook(LaneKind Kind, string Label, LaneShown Shown, string? Name);

/// <summary>How a map is looked at: all that a person chose about it beside the set.</summary>
/// <param name="Lanes">What its lanes are.</param>
/// <param name="Order">How they are ordered.</param>
/// <param name="Along">What runs along.</param>
/// <param name="Size">What the size of a mark says.</param>
/// <param name="Database">The database whose counts are the size; 0 for none.</param>
/// <param name="Colour">What the colour says.</param>
/// <param name="Open">Whether every value has a lane of its own.</param>
/// <param name="Suggest">How many works beside the set are suggested.</param>
/// <param name="Against">The step it is held against; 0 for none.</param>
/// <param name="Plan">The work whose citations are held against the set; 0 for none.</param>
/// <param name="Until">Works of later years are left out; null for none.</param>
/// <param name="Changed">The lanes that were folded, left out or renamed.</param>
/// <param name="Pins">Works whose cards are pinned, in their order.</param>
public sealed record MapLook(
    LaneField Lanes,
    LaneOrder Order,
    MapAlong Along,
    MapSize Size,
    int Database,
    MapColour Colour,
    bool Open,
    int Suggest,
    int Against,
    int Plan,
    int? Until,
    IReadOnlyList<LaneLook> Changed,
    IReadOnlyList<int> Pins
)
{
    /// <summary>At most so many lanes are folded, left out or renamed.</summary>
    public const int MostChanged = 400;

    /// <summary>At most so many cards are pinned.</summary>
    public const int MostPins = 6;

    /// <summary>Most characters of a lane's name.</summary>
    public const int LongestName = 200;

    /// <summary>What cannot be kept, in a sentence; null for nothing.</summary>
    public string? Fault =>
        !Enum.IsDefined(Lanes)
        || !Enum.IsDefined(Order)
        || !Enum.IsDefined(Along)
        || !Enum.IsDefined(Size)
        || !Enum.IsDefined(Colour)
        || Changed.Any(c => !Enum.IsDefined(c.Kind) || !Enum.IsDefined(c.Shown))
            ? "Zendle does not know this view of the map."
        : Changed.Count > MostChanged ? $"At most {MostChanged} lanes of a map are folded, left out or renamed."
        : Changed.Any(c => c.Label.Length > LongestName || c.Name?.Length > LongestName)
            ? $"The name of a lane has at most {LongestName} characters."
        : Pins.Count > MostPins ? $"At most {MostPins} cards are pinned on a map."
        : null;
}
