<?php

declare(strict_types=1);

namespace App\Http\SignOffs;

use Illuminate\Foundation\Http\FormRequest;

final class SignOffAnswerInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'ids' => ['required', 'array', 'list', 'min:1', $this->filled('corrections') ? 'max:1' : 'max:500'],
            'ids.*' => 'integer|min:1', 'answer' => 'required|in:yes,no',
            'comment' => 'nullable|string|max:2000', 'corrections' => 'nullable|array',
        ];
    }
}
