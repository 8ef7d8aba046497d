// What the formatter asks of citeproc: one engine for each style and language, made once; bibliographies of items given as CSL-JSON.
var zendle = (function () {
  var engines = {};
  var items = {};
  return {
    has: function (key) {
      return key in engines;
    },
    forget: function () {
      engines = {};
    },
    make: function (key, style, language) {
      var system = {
        retrieveLocale: function (l) {
          return hostLocale(l) || false;
        },
        retrieveItem: function (id) {
          return items[id];
        },
      };
      engines[key] = new CSL.Engine(system, style, language, true);
    },
    bibliography: function (key, json, format) {
      var engine = engines[key];
      var list = JSON.parse(json);
      var ids = [];
      items = {};
      list.forEach(function (item) {
        items[item.id] = item;
        ids.push(item.id);
      });
      engine.setOutputFormat(format);
      engine.updateItems(ids);
      var made = engine.makeBibliography();
      if (made)
        return JSON.stringify({
          ids: made[0].entry_ids.map(function (i) {
            return i[0];
          }),
          entries: made[1],
          inNotes: false,
        });
      // A style that has no list of references writes each in a note.
      var entries = ids.map(function (id) {
        return engine.makeCitationCluster([{ id: id }]);
      });
      return JSON.stringify({ ids: ids, entries: entries, inNotes: true });
    },
  };
})();
