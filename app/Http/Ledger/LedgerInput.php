<?php

declare(strict_types=1);

namespace App\Http\Ledger;

use Illuminate\Foundation\Http\FormRequest;

final class LedgerInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'text' => 'nullable|string|max:200|prohibits:after',
            'show' => 'nullable|in:edits,rules,tasks,administration',
            'outcome' => 'nullable|in:done,left_out,put_off,failed',
            'rule' => 'nullable|integer', 'before' => 'nullable|integer|min:0',
            'after' => 'nullable|integer|min:0|prohibits:before', 'person' => 'nullable|string|max:64',
            'record' => 'nullable|string|max:80', 'from' => 'nullable|date_format:Y-m-d', 'until' => 'nullable|date_format:Y-m-d',
        ];
    }
}
