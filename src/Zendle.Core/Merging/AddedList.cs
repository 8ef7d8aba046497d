namespace Zendle.Core.Merging;

/// <summary>A list of references that no record has: read out of a text, or what a table says one work cites.</summary>
/// <param name="Number">Its number among those of records; no record has it.</param>
/// <param name="Source">Its source, by a number that no database has.</param>
/// <param name="Work">The work of today that cites; 0 for one that is told by its DOI.</param>
/// <param name="Citing"><see cref="MergeKeys.Doi"/> of the work that cites; 0 for one that is told by its number.</param>
/// <param name="Keys">The keys of its references; none for a list that was taken away.</param>
public sealed record AddedList(int Number, int Source, int Work, ulong Citing, IReadOnlyList<ReferenceKeys> Keys);
