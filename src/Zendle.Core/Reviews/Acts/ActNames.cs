namespace Zendle.Core.Reviews.Acts;

/// <summary>Names of what acts speak of by number.</summary>
/// <param name="Database">Names a database by its id.</param>
/// <param name="Work">Names a work by its id, in two words: first person and year.</param>
public sealed record ActNames(Func<int, string> Database, Func<int, string> Work);
