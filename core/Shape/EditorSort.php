<?php

declare(strict_types=1);

namespace VividLedger\Shape;

/** The editors there are. A screen has one part for each, and knows no kind of thing that is edited with it. */
enum EditorSort: string
{
    case Choose = 'choose';         // one of what the server offers, or several
    case Value = 'value';           // a value of a field, or what the server offers besides
    case Text = 'text';             // one line or several, with merged fields or without
    case Number = 'number';
    case Form = 'form';             // a few small fields together: a time, a number, a choice
    case Formula = 'formula';
    case Timetable = 'timetable';
    case Letter = 'letter';
    case Begin = 'begin';           // puts something unfinished there, and goes on at its first gap
}
