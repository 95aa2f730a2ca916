-- Mappings that were remembered before tables could be turned about and their footnotes left out.
update sheet_mapping set mapping = '{"transposed": false, "footnotes": true, "marks": []}'::jsonb || mapping;
