<?php

declare(strict_types=1);

namespace App\Http\Ledger;

use App\Http\Describe\SaysWhatIsAsked;
use Illuminate\Foundation\Http\FormRequest;

/** Which entries of the ledger are meant. */
class LedgerFileInput extends FormRequest implements SaysWhatIsAsked
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'text' => 'nullable|string|max:200', 'show' => 'nullable|in:edits,rules,tasks,administration',
            'outcome' => 'nullable|in:done,left_out,put_off,failed', 'rule' => 'nullable|integer', 'person' => 'nullable|string|max:64',
            'record' => 'nullable|string|max:80', 'from' => 'nullable|date_format:Y-m-d', 'until' => 'nullable|date_format:Y-m-d',
        ];
    }

    public function meant(): array
    {
        return [
            'show' => 'Entries of one sort only.',
            'person' => 'Whose doing it was, by id or handle.',
            'record' => 'The number of a record, such as T-0042.',
            'from' => 'A day of the company, the first.',
            'until' => 'A day, the last.',
            'text' => 'Words that stand in what is said; of the last 3,000 entries, and on from "before".',
            'outcome' => 'By what came of it.',
        ];
    }
}
