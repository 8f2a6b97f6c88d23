<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use VividLedger\Formula\Formula;
use VividLedger\Formula\FormulaError;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** Reads a formula and gives it one word in the sentence. */
final class FormulaReader
{
    public static function read(Context $context, Node $node): ?Formula
    {
        $text = trim($node->text() ?? '');
        if ($text === '') {
            return $context->gap('write a formula', $node->at, Editor::formula(), 'missing', Words::say('Write the formula.'));
        }
        $context->word($text, WordRole::Value, $node->at, Editor::formula());
        try {
            return Formula::of($text, $context->schema, $context->type, $context->zone);
        } catch (FormulaError $error) {
            return $context->problem(
                $node->at,
                'bad_formula',
                Words::say('{error} (character {position})', error: $error->getMessage(), position: $error->position),
                $error->position,
            );
        }
    }
}
