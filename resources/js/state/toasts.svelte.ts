export type Toast = { id: number; text: string; bad: boolean; action?: { label: string; run: () => void } };

/** Short messages at the foot of the screen; what lies under one can still be clicked. */
class Toasts {
    shown = $state<Toast[]>([]);
    private next = 1;

    tell(text: string, action?: Toast['action']): void {
        this.add({ id: this.next++, text, bad: false, action });
    }

    complain(text: string): void {
        this.add({ id: this.next++, text, bad: true });
    }

    remove(id: number): void {
        this.shown = this.shown.filter((toast) => toast.id !== id);
    }

    private add(toast: Toast): void {
        this.shown = [...this.shown.slice(-2), toast];
        setTimeout(() => this.remove(toast.id), toast.bad || toast.action ? 9000 : 5000);
    }
}

export const toasts = new Toasts();
