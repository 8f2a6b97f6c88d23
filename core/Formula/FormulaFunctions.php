<?php

declare(strict_types=1);

namespace VividLedger\Formula;

/**
 * The functions of formulas, with the types they take and give. They are few on purpose, and each means the same in PHP
 * and in SQL.
 */
final class FormulaFunctions
{
    /** Name => [what it takes, what it gives, what it does]. */
    public const ALL = [
        'today' => [[], FormulaType::Date, 'today()  the date in the company’s zone'],
        'days' => [[FormulaType::Date, FormulaType::Date], FormulaType::Number, 'days(from, to)  how many days from one date to another'],
        'year' => [[FormulaType::Date], FormulaType::Number, 'year(date)'],
        'month' => [[FormulaType::Date], FormulaType::Number, 'month(date)  1 to 12'],
        'round' => [
            [FormulaType::Number, FormulaType::Number], FormulaType::Number, 'round(number, digits)  half away from zero; digits 0 to 6',
        ],
        'abs' => [[FormulaType::Number], FormulaType::Number, 'abs(number)'],
        'least' => [[FormulaType::Number, FormulaType::Number], FormulaType::Number, 'least(a, b)  the smaller of two numbers'],
        'most' => [[FormulaType::Number, FormulaType::Number], FormulaType::Number, 'most(a, b)  the larger of two numbers'],
        'length' => [[FormulaType::Text], FormulaType::Number, 'length(text)  in characters'],
        'empty' => [[null], FormulaType::Truth, 'empty(field)  whether nothing is filled in'],
    ];
}
