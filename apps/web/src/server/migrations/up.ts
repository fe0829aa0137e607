import type { QueryInterface, Transaction } from 'sequelize';

export type Up = (tables: QueryInterface, transaction: Transaction) => Promise<void>;
