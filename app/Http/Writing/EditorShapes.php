<?php

declare(strict_types=1);

namespace App\Http\Writing;

use App\Http\Describe\FormFieldShape;
use App\Http\Ledger\WayShape;
use VividLedger\Shape\Editor;
use VividLedger\Shape\FormField;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Way;
use VividLedger\Shape\Word;

/** Words of a page and how they can be changed, as the screens are told. */
final class EditorShapes
{
    public static function word(Word $word): WordShape
    {
        return new WordShape(
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
    public static function choices(array $offers, array $ways): ChoicesShape
    {
        return new ChoicesShape(array_map(self::offer(...), $offers), array_map(static fn (Way $way): WayShape => new WayShape(
            $way->label,
            $way->with === [] ? new \stdClass : $way->with,
            array_map(self::field(...), $way->fields),
            $way->keeps,
        ), $ways));
    }

    public static function offer(Offer $offer): OfferedShape
    {
        return new OfferedShape(
            $offer->label, $offer->value, $offer->group, $offer->hint, $offer->merge, $offer->at, $offer->isChosen, $offer->also,
        );
    }

    private static function editor(Editor $editor): EditorShape
    {
        return new EditorShape(
            $editor->sort->value, $editor->label, $editor->offers !== null, $editor->many, $editor->clears, $editor->isLong,
            $editor->merges, $editor->mayBeEmpty, $editor->least, $editor->most, $editor->isWhole, $editor->type, $editor->field,
            $editor->wrap, $editor->none, $editor->hint, $editor->begins, $editor->then,
        );
    }

    private static function field(FormField $field): FormFieldShape
    {
        return new FormFieldShape(
            $field->sort, $field->key, $field->label, $field->behind, $field->starts, $field->isNeeded, $field->least, $field->most,
            array_map(self::offer(...), $field->options), $field->sides, $field->sidesWith, $field->hasTime, $field->hasClock,
            $field->units,
        );
    }
}
