<script lang="ts">
    import { Toast } from 'flowbite-svelte';
    import { toasts } from '../state/toasts.svelte';
</script>

<div class="pointer-events-none fixed right-6 bottom-6 z-[60] flex flex-col items-end gap-2" aria-live="polite">
    {#each toasts.shown as toast (toast.id)}
        <Toast
            dismissable={false}
            class="pointer-events-none max-w-xl rounded-lg border-0 px-4 py-2.5 text-[13px] text-page shadow-lg {toast.bad
                ? 'bg-madder'
                : 'bg-ink'}"
        >
            <div class="flex items-center gap-4">
                <span role={toast.bad ? 'alert' : 'status'}>{toast.text}</span>
                {#if toast.action}
                    <button
                        type="button"
                        class="pointer-events-auto shrink-0 font-semibold text-iris-wash hover:underline"
                        onclick={() => {
                            toast.action?.run();
                            toasts.remove(toast.id);
                        }}>{toast.action.label}</button
                    >
                {/if}
                <button
                    type="button"
                    class="pointer-events-auto shrink-0 opacity-70 hover:opacity-100"
                    aria-label="Close"
                    onclick={() => toasts.remove(toast.id)}>×</button
                >
            </div>
        </Toast>
    {/each}
</div>
