import { Button, notification } from 'antd';

/** What a person can do about a notice; the notice closes with it. */
export interface NoticeAction {
  readonly label: string;
  readonly run: () => void;
}

/** Reports above the page what was just done or could not be. */
interface Notices {
  /** Says that something was done; it may be undone where there is a way. */
  readonly done: (text: string, action?: NoticeAction) => void;
  /** Says what could not be done, in the words of an error or of its own. A screen reader reads it at once. */
  readonly failed: (why: unknown, action?: NoticeAction) => void;
  /** A handler of clicks that reports where its work fails. */
  readonly reporting: (work: () => Promise<void>) => () => void;
}

/** Seconds that a notice stays. */
const DURATION = 8;

function open(kind: 'success' | 'error', text: string, action: NoticeAction | undefined): void {
  const key = crypto.randomUUID();
  notification[kind]({
    key,
    title: text,
    placement: 'top',
    duration: DURATION,
    role: kind === 'error' ? 'alert' : 'status',
    closable: { 'aria-label': 'Close' },
    actions:
      action === undefined ? undefined : (
        <Button
          size="small"
          onClick={() => {
            notification.destroy(key);
            action.run();
          }}
        >
          {action.label}
        </Button>
      ),
  });
}

function failed(why: unknown, action?: NoticeAction): void {
  open('error', why instanceof Error ? why.message : String(why), action);
}

/** The notices of the application, which are shown until they are closed, for eight seconds. */
export const notices: Notices = {
  done: (text, action) => open('success', text, action),
  failed,
  reporting: (work) => () => void work().catch((thrown: unknown) => failed(thrown)),
};
