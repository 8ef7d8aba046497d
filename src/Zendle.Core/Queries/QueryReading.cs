using System.Collections.Immutable;

namespace Zendle.Core.Queries;

/// <summary>
/// What reading a line gave: the tree, what is wrong with the line, and what a person should know about how it was
/// read.
/// </summary>
/// <param name="Text">The line.</param>
/// <param name="Root">The tree of the longest part that could be read; <see cref="AllNode"/> for an empty line, null
/// when nothing is left to search.</param>
/// <param name="Problems">What is wrong, each with a position and, where there is one, a repair.</param>
/// <param name="Notices">What was read in a way that may surprise.</param>
public sealed record QueryReading(
    string Text,
    QueryNode? Root,
    ImmutableArray<QueryProblem> Problems,
    ImmutableArray<QueryNotice> Notices
)
{
    /// <summary>True when nothing was wrong and there is something to search.</summary>
    public bool IsSound => Problems.IsEmpty && Root is not null;
}

/// <summary>Something wrong with a line.</summary>
/// <param name="Span">Where.</param>
/// <param name="Sentence">What is wrong, in a sentence; positions in it count from 1, as people do.</param>
/// <param name="Repair">What to do about it; null when only the person can know.</param>
public sealed record QueryProblem(TextSpan Span, string Sentence, QueryRepair? Repair);

/// <summary>A way to mend a line.</summary>
/// <param name="Label">What it does, in a few words.</param>
/// <param name="Text">The whole line after it.</param>
public sealed record QueryRepair(string Label, string Text);

/// <summary>What kind of thing a notice points out.</summary>
public enum NoticeKind
{
    /// <summary>Words side by side were joined by AND.</summary>
    LooseWords,

    /// <summary>A lower-case "or" or "and" was read as the operator.</summary>
    LowerCaseOperator,

    /// <summary>A lower-case "not" was read as a word.</summary>
    LowerCaseNot,

    /// <summary>OR stands beside AND or NOT without parentheses.</summary>
    MixedOperators,

    /// <summary>A sign of another query language was read as ours.</summary>
    OtherDialect,

    /// <summary>A year among words is looked for as a word.</summary>
    BareYear,

    /// <summary>A value of a field was written otherwise.</summary>
    FieldValue,
}

/// <summary>Something that was read in a way that may surprise, with the other ways to read it.</summary>
/// <param name="Kind">What it is about.</param>
/// <param name="Span">Where.</param>
/// <param name="Sentence">How it was read.</param>
/// <param name="Ways">The ways to read it, the one that was taken first; each is a whole line that can be
/// counted.</param>
public sealed record QueryNotice(NoticeKind Kind, TextSpan Span, string Sentence, ImmutableArray<QueryWay> Ways);

/// <summary>One way to read a line.</summary>
/// <param name="Label">What is special about it: "all words", "near", "phrase".</param>
/// <param name="Text">The whole line written that way.</param>
public sealed record QueryWay(string Label, string Text);
