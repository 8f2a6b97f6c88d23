<?php

declare(strict_types=1);

namespace App\Http\SignOffs;

use Illuminate\Foundation\Http\FormRequest;

final class UnlockInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'reason' => 'present|nullable|string|max:500',
        ];
    }
}
