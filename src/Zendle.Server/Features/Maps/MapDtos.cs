using Zendle.Core.Maps;
using Zendle.Core.Reviews;
using Zendle.Server.Features.Search;

namespace Zendle.Server.Features.Maps;

/// <summary>A lane.</summary>
/// <param name="Label">Name of its value; empty for others and none.</param>
/// <param name="Values">How many values it stands for.</param>
/// <param name="Works">How many works stand in it.</param>
/// <param name="Several">How many of them have other values, too.</param>
/// <param name="Y">Upper edge, in pixels.</param>
internal sealed record MapLaneDto(
    LaneKind Kind,
    string Label,
    int Values,
    int Works,
    int Several,
    double Y,
    double Height
);

/// <summary>A column.</summary>
/// <param name="X">Left edge, in pixels.</param>
internal sealed record MapColumnDto(ColumnKind Kind, int From, int To, double X, double Width);

/// <summary>A work on the map.</summary>
/// <param name="Lane">Ordinal of its lane.</param>
/// <param name="Column">Ordinal of its column.</param>
/// <param name="X">Centre, in pixels; of its bin where it stands in one.</param>
/// <param name="Diameter">0 where it stands in a bin.</param>
/// <param name="Year">Null when unknown.</param>
/// <param name="Name">First person and year.</param>
/// <param name="Size">What its size says.</param>
/// <param name="Cites">Ordinals of the works on the map that it cites.</param>
/// <param name="CitesOutside">Works it cites that are not on the map.</param>
/// <param name="CitedOutside">Works that cite it and are not on the map.</param>
/// <param name="IsShared">Whether it is in the other set, too.</param>
/// <param name="Tags">Ordinals of its tags among those of the map.</param>
/// <param name="Strongest">Ordinal of the work that it cites and is bound to most closely; null where it cites none.</param>
internal sealed record MapWorkDto(
    int Id,
    int Lane,
    int Column,
    double X,
    double Y,
    double Diameter,
    int? Year,
    Stage Stage,
    string Name,
    string Title,
    double Size,
    IReadOnlyList<int> Cites,
    int CitesOutside,
    int CitedOutside,
    bool IsShared,
    IReadOnlyList<int> Tags,
    int? Strongest
);

/// <summary>A tag of works on the map.</summary>
/// <param name="Works">How many of them bear it.</param>
internal sealed record MapTagDto(string Name, int Works);

/// <summary>A work, mostly a planned one, whose citations are held against the set.</summary>
/// <param name="Work">Where it stands, or would stand.</param>
/// <param name="At">Its ordinal where it is of the set; else null.</param>
/// <param name="CitedBy">Ordinals of the works on the map that cite it.</param>
/// <param name="LanesLeftOut">Ordinals of the lanes of a value of which it cites no work.</param>
/// <param name="MuchCited">Ordinals of the works that others on the map cite most and that it does not cite.</param>
internal sealed record PlanDto(
    MapWorkDto Work,
    int? At,
    IReadOnlyList<int> CitedBy,
    IReadOnlyList<int> LanesLeftOut,
    IReadOnlyList<int> MuchCited
);

/// <summary>A work that is not in the set and has much in common with what was kept of it.</summary>
/// <param name="Work">Where it would stand.</param>
/// <param name="InCommon">Why it is here.</param>
/// <param name="CitedBy">Ordinals of the works on the map that cite it.</param>
/// <param name="IsByLinks">Whether it stands in its lane because of its links with works there: it has no value of it.</param>
internal sealed record SuggestionDto(MapWorkDto Work, InCommonDto InCommon, IReadOnlyList<int> CitedBy, bool IsByLinks);

/// <summary>Works that are too many for their lane and column to be drawn one by one.</summary>
/// <param name="Works">Ordinals of the works.</param>
internal sealed record MapBinDto(
    int Lane,
    int Column,
    double X,
    double Y,
    double Width,
    double Height,
    IReadOnlyList<int> Works
);

/// <summary>A size, and the diameter that stands for it: for the legend.</summary>
internal sealed record SampleDto(double Size, double Diameter);

/// <summary>The set that a map is held against.</summary>
/// <param name="Shared">Works in both.</param>
/// <param name="OnlyThere">Works of it that are not on the map.</param>
internal sealed record OtherSetDto(int Shared, int OnlyThere);

/// <summary>The works among which the lanes of a map were found.</summary>
/// <param name="Works">How many.</param>
/// <param name="At">When.</param>
/// <param name="Came">Works of the set today that were not among them: each is put where most of its links are.</param>
/// <param name="Gone">Works among them that are not in the set today.</param>
internal sealed record FoundAmongDto(int Works, DateTimeOffset At, int Came, int Gone);

/// <summary>A set as a map. Ordinals count the works from 0 in the order they are listed.</summary>
/// <param name="Links">How many citations run among the works.</param>
/// <param name="MainLine">Ordinals of the works on the main line, the oldest first.</param>
/// <param name="Modularity">How much more of the links lies within the topics than chance would bring; null for other
/// lanes.</param>
/// <param name="Samples">Three sizes; none where size says nothing.</param>
/// <param name="Seeds">Whether the set has seeds.</param>
/// <param name="Suggested">Works that were asked for beside the set, the most alike first.</param>
/// <param name="Other">The set it is held against; null for none.</param>
/// <param name="Tags">Tags of its works, by name.</param>
/// <param name="Plan">The work that was asked to be held against the set; null for none.</param>
/// <param name="Among">The works that its lanes were found among; null where lanes are not found.</param>
internal sealed record MapDto(
    IReadOnlyList<MapLaneDto> Lanes,
    IReadOnlyList<MapColumnDto> Columns,
    IReadOnlyList<MapWorkDto> Works,
    IReadOnlyList<MapBinDto> Bins,
    int Links,
    IReadOnlyList<int> MainLine,
    double? Modularity,
    IReadOnlyList<SampleDto> Samples,
    double Width,
    double Height,
    bool Seeds,
    IReadOnlyList<SuggestionDto> Suggested,
    OtherSetDto? Other,
    IReadOnlyList<MapTagDto> Tags,
    PlanDto? Plan,
    FoundAmongDto? Among
);
