<?php

declare(strict_types=1);

namespace VividLedger\Rule\Call;

use VividLedger\Facts\View;
use VividLedger\Record\Display;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;
use VividLedger\Template\Template;

/** One member of what is sent: a field, or a text of one's own with merge fields, under a name that may be a path with dots. */
final readonly class Sent
{
    public function __construct(private Path|Template $what, public string $name)
    {
    }

    /** As another system gets it: amounts stay exact, as text; people and records are known there by what they are called. */
    public function value(View $view, Display $display, string $number): string|int|bool|null
    {
        if ($this->what instanceof Template) {
            return $this->what->render($view, $display, $number);
        }
        $field = $this->what->field;
        $value = $view->value($this->what);
        $isNamed = $field->type === FieldType::Person || $field->type === FieldType::Reference;

        return $isNamed && $value !== null ? $display->of($field, $value) : $value;
    }
}
