<?php

declare(strict_types=1);

namespace App\Http\Tasks;

use Illuminate\Foundation\Http\FormRequest;

final class CalendarTasksInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'text' => 'required|string|max:2000000', 'recordType' => 'required_with:recordId|string',
            'recordId' => 'nullable|integer|min:1', 'onlyRead' => 'boolean',
        ];
    }
}
