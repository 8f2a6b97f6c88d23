<?php

declare(strict_types=1);

namespace App\Http\Records;

use Illuminate\Foundation\Http\FormRequest;

final class MergeInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'version' => 'required|integer', 'other' => 'required|integer|min:1', 'otherVersion' => 'required|integer',
            'values' => 'sometimes|array',
        ];
    }
}
