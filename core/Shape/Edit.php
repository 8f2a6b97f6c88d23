<?php

declare(strict_types=1);

namespace VividLedger\Shape;

/** How a word can be changed in place. */
enum Edit: string
{
    case Trigger = 'trigger';
    case WatchedFields = 'watched_fields';
    case ChangedValue = 'changed_value';    // a value of the one field a trigger watches
    case Where = 'where';                   // adds a group of conditions on related records
    case Group = 'group';
    case Field = 'field';
    case Operator = 'operator';
    case Operand = 'operand';
    case Span = 'span';                     // an amount of time
    case Formula = 'formula';
    case Guard = 'guard';
    case SetField = 'set_field';
    case SetValue = 'set_value';
    case Title = 'title';                   // one line with merge fields
    case Notes = 'notes';                   // several lines with merge fields
    case Text = 'text';                     // one plain line
    case Number = 'number';
    case Person = 'person';
    case Due = 'due';
    case Recipients = 'recipients';
    case Letter = 'letter';                 // a message's text, edited as it reads
    case KeptValue = 'kept_value';          // a value that a field has kept
    case Timing = 'timing';                 // when a line is done
    case Quiet = 'quiet';                   // the hours outside which lines wait
    case Cap = 'cap';                       // how many messages in what time
    case Moment = 'moment';                 // how far from a date a rule starts
    case Timetable = 'timetable';           // when a rule comes round
    case Offer = 'offer';                   // chosen from what the server offers for the place
}
