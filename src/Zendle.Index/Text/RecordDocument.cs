using System.Globalization;
using Lucene.Net.Documents;
using Lucene.Net.Index;
using Zendle.Core.People;
using Zendle.Core.Records;
using Zendle.Core.Text;

namespace Zendle.Index.Text;

/// <summary>
/// Makes the document that the text index holds of a record. What it gives is good until it is asked for the next one;
/// each thread has its own.
/// </summary>
internal sealed class RecordDocument
{
    private static readonly FieldType Running = new(TextField.TYPE_NOT_STORED)
    {
        OmitNorms = true,
        IndexOptions = IndexOptions.DOCS_AND_FREQS_AND_POSITIONS,
    };

    private readonly Dictionary<string, (WordsTokenStream Words, Field Field)> texts = [];
    private readonly Document document = [];

    // Fields of one value are used again: a new one takes out a lock that all threads share, and there are some forty a
    // record.
    private readonly Dictionary<string, (List<StringField> Fields, int Used)> values = [];
    private readonly NumericDocValuesField number = new(IndexFields.Record, 0),
        lengths = new(IndexFields.Lengths, 0);

    /// <summary>The document of a record.</summary>
    public Document Of(int recordId, Record record)
    {
        document.Fields.Clear();
        foreach (var name in values.Keys)
            values[name] = values[name] with { Used = 0 };
        AddValue(IndexFields.Id, recordId.ToString(CultureInfo.InvariantCulture));
        number.SetInt64Value(recordId);
        document.Add(number);
        var title = AddText(IndexFields.Title, record.Titles);
        var keywords = AddText(IndexFields.Keywords, record.Keywords);
        var controlled = AddText(IndexFields.Controlled, record.ControlledTerms);
        var abstractWords = AddText(IndexFields.Abstract, record.Abstracts);
        AddText(IndexFields.Author, record.People.Select(p => $"{p.Given} {p.Family}"));
        foreach (var hyphenated in Hyphenated(record).Distinct())
            AddValue(IndexFields.Hyphenated, hyphenated);
        foreach (var form in record.People.SelectMany(NameForms.Of).Distinct())
            AddValue(IndexFields.Name, form);
        AddText(IndexFields.Venue, record.Venue is null ? [] : [record.Venue.Title]);
        AddText(IndexFields.Subject, record.Subjects);
        AddText(IndexFields.Affiliation, record.People.Select(p => p.Affiliation).OfType<string>().Distinct());
        AddText(IndexFields.Funder, record.Funders);
        lengths.SetInt64Value(
            (long)(
                (uint)Math.Min(title, 0xFFFF)
                | (ulong)(uint)Math.Min(keywords, 0xFFFF) << 16
                | (ulong)(uint)Math.Min(abstractWords, 0xFFFF) << 32
                | (ulong)(uint)Math.Min(controlled, 0xFFFF) << 48
            )
        );
        document.Add(lengths);
        AddValue(IndexFields.Doi, record.Doi);
        AddValue(IndexFields.Issn, record.Venue?.Issn);
        AddValue(IndexFields.Isbn, record.Isbn);
        foreach (var address in record.Copies.Select(c => WebAddress.Key(c.Address)).Distinct())
            AddValue(IndexFields.Url, address);
        AddValue(IndexFields.Type, DocumentTypes.Name(record.Type));
        if (record.Language is { } language)
        {
            AddValue(IndexFields.Language, language);
            AddValue(IndexFields.Language, Languages.Name(language).ToLowerInvariant());
            AddValue(IndexFields.Language, Languages.TwoLetters(language));
        }
        return document;
    }

    /// <summary>The hyphenated words of what is searched by default, each behind its closed form.</summary>
    private static IEnumerable<string> Hyphenated(Record record) =>
        record
            .About.Where(text => text.AsSpan().IndexOfAny("-\u2010\u2011\u2012") >= 0)
            .SelectMany(text =>
                Words.Of(text).Where(w => w.IsClosedForm).Select(w => $"{w.Text}|{Words.Fold(text[w.Start..w.End])}")
            );

    /// <returns>How many words the field has.</returns>
    private int AddText(string field, IEnumerable<string> values)
    {
        if (!texts.TryGetValue(field, out var text))
        {
            var stream = new WordsTokenStream();
            texts[field] = text = (stream, new Field(field, stream, Running));
        }
        text.Words.Take(values);
        if (text.Words.Count > 0)
            document.Add(text.Field);
        return text.Words.Count;
    }

    private void AddValue(string name, string? value)
    {
        if (value is null)
            return;
        var (fields, used) = values.TryGetValue(name, out var there) ? there : ([], 0);
        if (used == fields.Count)
            fields.Add(new(name, "", Field.Store.NO));
        fields[used].SetStringValue(IndexFields.Cut(value));
        document.Add(fields[used]);
        values[name] = (fields, used + 1);
    }
}
