using Zendle.Core.Merging;
using Zendle.Core.People;
using Zendle.Core.Records;

namespace Zendle.Core.Tests.People;

/// <summary>A work with one record, as far as people are told apart by it.</summary>
internal static class NamedWork
{
    /// <summary>The mentions of the work.</summary>
    public static IReadOnlyList<Mention> Mentions(int id, int? year, string subject, params PersonName[] people)
    {
        SourcedRecord[] records =
        [
            new(
                id,
                1,
                0,
                new Core.Records.Record
                {
                    Identifier = "r" + id,
                    Title = "Work " + id,
                    Year = year,
                    People = people,
                    Subjects = [subject],
                    Keywords = [subject + " methods"],
                }
            ),
        ];
        return Mention.Of(id, records, ChosenFields.From(records));
    }
}
