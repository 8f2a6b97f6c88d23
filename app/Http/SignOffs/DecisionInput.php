<?php

declare(strict_types=1);

namespace App\Http\SignOffs;

use Illuminate\Foundation\Http\FormRequest;

final class DecisionInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['answer' => 'required|in:yes,no', 'comment' => 'nullable|string|max:2000'];
    }
}
