<?php

declare(strict_types=1);

namespace VividLedger\Shape;

/** What a word of a sentence stands for; the screen gives each its own ink. */
enum WordRole: string
{
    case Glue = 'glue';
    case Field = 'field';
    case Value = 'value';
    case Person = 'person';
    case Missing = 'missing';
    case More = 'more';     // not said: what could be added
}
