<?php

declare(strict_types=1);

namespace App\Http\Lists;

use App\Http\Records\RecordController;
use Illuminate\Foundation\Http\FormRequest;

final class RecordsInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'records' => 'present|array|list|max:'
                .RecordController::MOST_AT_ONCE, 'records.*' => 'array:id,version,values', 'records.*.id' => 'nullable|integer|min:1',
            'records.*.version' => 'required_with:records.*.id|nullable|integer', 'records.*.values' => 'present|array',
        ];
    }
}
