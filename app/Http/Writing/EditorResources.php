<?php

declare(strict_types=1);

namespace App\Http\Writing;

use App\Http\Describe\FormFieldResource;
use App\Http\Ledger\WayResource;
use VividLedger\Shape\Editor;
use VividLedger\Shape\FormField;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Way;
use VividLedger\Shape\Word;

/** Words of a page and how they can be changed, as the screens are told. */
final class EditorResources
{
    public static function word(Word $word): WordResource
    {
        return new WordResource(
            $word->text,
            $word->role->value,
            $word->at,
            $word->editor === null ? null : self::editor($word->editor),
            $word->on,
        );
    }

    /**
     * @param  list<Offer>  $offers
     * @param  list<Way>  $ways
     */
    public static function choices(array $offers, array $ways): ChoicesResource
    {
        return new ChoicesResource(array_map(self::offer(...), $offers), array_map(static fn (Way $way): WayResource => new WayResource(
            $way->label,
            $way->with === [] ? new \stdClass : $way->with,
            array_map(self::field(...), $way->fields),
            $way->keeps,
        ), $ways));
    }

    public static function offer(Offer $offer): OfferedResource
    {
        return new OfferedResource(
            label: $offer->label, value: $offer->value, group: $offer->group, hint: $offer->hint, merge: $offer->merge, at: $offer->at,
            isChosen: $offer->isChosen, also: $offer->also,
        );
    }

    private static function editor(Editor $editor): EditorResource
    {
        return new EditorResource(
            sort: $editor->sort->value, label: $editor->label, others: $editor->offers !== null, many: $editor->many,
            clears: $editor->clears, isLong: $editor->isLong, merges: $editor->merges, mayBeEmpty: $editor->mayBeEmpty,
            least: $editor->least, most: $editor->most, isWhole: $editor->isWhole, type: $editor->type, field: $editor->field,
            wrap: $editor->wrap, none: $editor->none, hint: $editor->hint, begins: $editor->begins, then: $editor->then,
        );
    }

    private static function field(FormField $field): FormFieldResource
    {
        return new FormFieldResource(
            sort: $field->sort, key: $field->key, label: $field->label, behind: $field->behind, starts: $field->starts,
            isNeeded: $field->isNeeded, least: $field->least, most: $field->most, options: array_map(self::offer(...), $field->options),
            sides: $field->sides, sidesWith: $field->sidesWith, hasTime: $field->hasTime, hasClock: $field->hasClock,
            units: $field->units,
        );
    }
}
