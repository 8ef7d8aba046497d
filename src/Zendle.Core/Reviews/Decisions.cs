namespace Zendle.Core.Reviews;

/// <summary>What a person does to a work in a review.</summary>
public enum DecisionAct
{
    /// <summary>Takes the work into the review.</summary>
    Keep,

    /// <summary>Decides against it, with a reason.</summary>
    SetAside,

    /// <summary>Takes the judgement away: the work is found, not judged.</summary>
    Clear,

    /// <summary>Puts a tag on it.</summary>
    Tag,

    /// <summary>Takes a tag off.</summary>
    Untag,
}

/// <summary>Where a work stands in a review.</summary>
public enum Stage
{
    /// <summary>Not judged yet.</summary>
    Found,

    /// <summary>Passed screening.</summary>
    Kept,

    /// <summary>Decided against.</summary>
    SetAside,
}

/// <summary>One decision on one work; events are only ever added.</summary>
/// <param name="Sequence">Number in the order of writing, from 1.</param>
/// <param name="Batch">The act it was part of: "keep the first 20" is one batch of twenty events.</param>
/// <param name="WorkId">The work, as it was.</param>
/// <param name="RecordId">The record the decision was made on; it finds the work again after a merge or a
/// split.</param>
/// <param name="Act">What was done.</param>
/// <param name="Value">Reason or tag; null otherwise.</param>
/// <param name="By">Account that did it.</param>
/// <param name="At">When, UTC.</param>
/// <param name="Undoes">The batch this event takes back; null for an act of its own.</param>
public sealed record DecisionEvent(
    long Sequence,
    Guid Batch,
    int WorkId,
    int RecordId,
    DecisionAct Act,
    string? Value,
    string By,
    DateTimeOffset At,
    Guid? Undoes = null
);

/// <summary>What the events on a work add up to.</summary>
/// <param name="Stage">Where it stands.</param>
/// <param name="Reason">Why it was set aside.</param>
/// <param name="Tags">Its tags, in the order they were put on.</param>
/// <param name="By">Who judged it last; null when nobody has.</param>
/// <param name="At">When.</param>
public sealed record Judgement(Stage Stage, string? Reason, IReadOnlyList<string> Tags, string? By, DateTimeOffset? At)
{
    /// <summary>A work nobody has judged.</summary>
    public static Judgement None { get; } = new(Stage.Found, null, [], null, null);
}

/// <summary>The words of stages, as they stand in queries, on chips and in the log.</summary>
public static class Stages
{
    /// <summary>The word for a stage.</summary>
    public static string Name(Stage stage) =>
        stage switch
        {
            Stage.Kept => "kept",
            Stage.SetAside => "set aside",
            _ => "found",
        };
}
